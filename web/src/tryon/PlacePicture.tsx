import { clsx } from "clsx";
import type { PinSide, Stand } from "../api/client";
import drawing from "../drawing/drawing.module.css";
import styles from "./fitting.module.css";

interface Props {
  stand: Stand | null;
  /** The place that is asked about. */
  side: PinSide | null;
}

/** The garment on its wearer with the place marked, as one sees it standing in front of it. */
export function PlacePicture({ stand, side }: Props) {
  const spot = side?.spot;
  const view = stand?.views.find((v) => v.view === (spot?.view ?? "front"));
  if (!stand || !view) return <div className={styles["place-picture"]} aria-hidden />;
  const [top = 0, bottom = stand.height_mm] = stand.garment_mm;
  const half = stand.width_mm / 2;
  const radius = (bottom - top) / 34;
  return (
    <figure className={styles["place-picture"]}>
      <svg
        viewBox={`${-half} ${top} ${2 * half} ${bottom - top}`}
        role="img"
        aria-label={`From the ${view.view}${side ? `, ${side.words}` : ""}`}
      >
        {view.body.map((path) => (
          <path key={path} className={drawing["body"]} d={path} />
        ))}
        {view.cloth.map((path) => (
          <path
            key={path}
            className={clsx(drawing["cloth"], drawing["on-body"])}
            d={path}
            style={{ fill: stand.colour }}
          />
        ))}
        {view.parts.map((part, index) => (
          <path
            key={`${part.name} ${index}`}
            className={drawing[part.look]}
            d={part.path}
            style={part.look === "piece" ? { fill: stand.colour } : {}}
          />
        ))}
        {spot && (
          <g className={styles["spot"]}>
            <circle cx={spot.x_mm} cy={spot.y_mm} r={2.2 * radius} />
            <circle cx={spot.x_mm} cy={spot.y_mm} r={radius} className={styles["spot-pin"]} />
          </g>
        )}
      </svg>
      <figcaption>{view.view === "front" ? "from the front" : "from the back"}</figcaption>
    </figure>
  );
}
