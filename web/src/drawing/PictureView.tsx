import type { Hanging, Picture } from "../api/client";
import styles from "./drawing.module.css";

/** A small drawing that explains, painted as the server drew it. */
export function PictureView({ picture, label }: { picture: Picture; label?: string }) {
  return (
    <svg
      className={styles["picture"]}
      viewBox={picture.view.join(" ")}
      {...(label ? { role: "img", "aria-label": label } : { "aria-hidden": true })}
    >
      {picture.strokes.map((stroke, index) => (
        <path key={index} className={styles[`ink-${stroke.ink}`]} d={stroke.path} />
      ))}
    </svg>
  );
}

/** A garment by itself, as it hangs on the rail. */
export function HangingView({ hanging }: { hanging: Hanging }) {
  return (
    <>
      {hanging.cloth.map((path) => (
        <path key={path} className={styles["cloth"]} style={{ fill: hanging.colour }} d={path} />
      ))}
      <path className={styles["seam"]} d={hanging.seams} />
      {hanging.pieces.map((path) => (
        <path key={path} className={styles["piece"]} style={{ fill: hanging.colour }} d={path} />
      ))}
      <path className={styles["edge"]} d={hanging.edges} />
    </>
  );
}
