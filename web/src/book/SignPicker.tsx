import { Input, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { problemOf, type Garment, type SignLine, type Signs, type Wearer } from "../api/client";
import { PictureView } from "../drawing/PictureView";
import { Trouble } from "../shell/Trouble";
import { useSigns } from "./useSigns";
import styles from "./book.module.css";

interface Props {
  wearer: Wearer;
  /** What is worn; garments as they usually are, when null. */
  garment: Garment | null;
  picked: SignLine["sign"] | null;
  onPick: (sign: SignLine) => void;
}

type Place = Signs["places"][number];

/** Looks for what the cloth says on a body, place by place, or by word. */
export function SignPicker({ wearer, garment, picked, onPick }: Props) {
  const found = useSigns(wearer, garment);
  const [word, setWord] = useState("");
  const [place, setPlace] = useState<Place["place"] | null>(null);
  if (found.isError) return <Trouble problem={problemOf(found.error)} retry={() => void found.refetch()} />;
  if (!found.data) return <Skeleton active paragraph={{ rows: 6 }} />;
  const { body, places } = found.data;
  const sought = word.trim().toLowerCase();
  const says = (sign: SignLine) =>
    [sign.name, ...sign.causes.flatMap((cause) => [cause.why, cause.first])].join(" ").toLowerCase();
  const shown = places
    .filter((there) => sought !== "" || place === null || there.place === place)
    .map((there) => ({ ...there, signs: there.signs.filter((sign) => says(sign).includes(sought)) }))
    .filter((there) => there.signs.length > 0);
  return (
    <div className={styles["picker"]}>
      <div className={styles["where"]}>
        <Input.Search
          aria-label="Look for a word"
          placeholder="fold, gape, pocket …"
          allowClear
          value={word}
          onChange={(event) => {
            setWord(event.target.value);
          }}
        />
        <div className={styles["body"]}>
          <PictureView picture={body} />
          <Spots body={body} places={places} picked={sought === "" ? place : null} onPick={setPlace} />
        </div>
        <ul className={styles["places"]} aria-label="Places">
          {[{ place: null, name: "everywhere" }, ...places].map((there) => (
            <li key={there.name}>
              <button
                type="button"
                aria-pressed={sought === "" && place === there.place}
                onClick={() => {
                  setWord("");
                  setPlace(there.place);
                }}
              >
                {there.name}
              </button>
            </li>
          ))}
        </ul>
      </div>
      <div className={styles["found"]}>
        {shown.length === 0 && (
          <p className="quiet" role="status">
            Nothing here is called “{word}”. Try a shorter word, or look by place.
          </p>
        )}
        {shown.map((there) => (
          <section key={there.place} aria-label={there.name}>
            <h3>{there.name}</h3>
            <ul className={styles["signs"]}>
              {there.signs.map((sign) => (
                <li key={sign.sign}>
                  <button
                    type="button"
                    className={clsx(styles["sign"])}
                    aria-pressed={sign.sign === picked}
                    onClick={() => {
                      onPick(sign);
                    }}
                  >
                    {sign.picture && <PictureView picture={sign.picture} />}
                    <span>{sign.name}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </div>
  );
}

interface SpotsProps {
  body: Signs["body"];
  places: Place[];
  picked: Place["place"] | null;
  onPick: (place: Place["place"]) => void;
}

/** The places on the body, each a dot that can be touched; the list beside it says the same to whoever cannot see it. */
function Spots({ body, places, picked, onPick }: SpotsProps) {
  return (
    <svg viewBox={body.view.join(" ")} aria-hidden="true">
      {places.map(({ place, spot_mm: [x, y] }) => (
        <circle
          key={place}
          className={clsx(styles["spot"], place === picked && styles["spot-picked"])}
          cx={x}
          cy={y}
          r={46}
          onClick={() => {
            onPick(place);
          }}
        />
      ))}
    </svg>
  );
}
