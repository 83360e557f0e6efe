import type { AskedNow, Document, LiveEvent, TryOn } from "../api/client";
import { Words } from "../drawing/Words";
import { stateOf } from "../document/changes";
import { useWords } from "../document/useWords";
import { useStand } from "../document/useDerived";
import { useSolved } from "../document/useSolved";
import { useSettings } from "../settings";
import { PlacePicture } from "./PlacePicture";
import { useAsking } from "../document/useAsking";
import styles from "./fitting.module.css";

/** Takes in what was asked, from an event. */
export const askedIn = (event: LiveEvent, id: string): AskedNow | null =>
  "asked" in event && event.asked.try_on === id ? event.asked : null;

interface Props {
  id: string;
  garment: Document;
  tryOn: TryOn;
  asked: AskedNow | null;
}

/** The try-on for the mirror or the sofa: what is asked now, and what it comes to, as large as it goes. */
export function LargeView({ id, garment, tryOn, asked }: Props) {
  const { tape } = useSettings();
  const asking = useAsking(garment, undefined, tryOn, tape);
  const words = useWords();
  const state = stateOf(garment, tryOn);
  if (!state) throw new Error("a garment has one state at least");
  const stand = useStand(id, { garment: state.garment, wearer: garment.wearer });
  const { solved } = useSolved(garment, tryOn, tape);
  const steps = asking.data?.steps ?? [];
  const step = steps.find((s) => s.key === asked?.step) ?? steps.find((s) => s.settled) ?? steps[0];
  const pinned = (step?.pins ?? []).flatMap((place) =>
    place.sides.filter((side) => side.pin ?? side.left_out).map((side) => ({ place, side })),
  );
  const place = step?.pins?.[0];
  const number = asked?.typed ?? "";
  const typedAt = step?.pins?.find((p) => p.change === asked?.change) ?? place;
  const typedSide = typedAt?.sides.find((side) => side.side === asked?.side);
  const where = typedSide?.words ?? "";
  const level = solved?.try_ons[0]?.levels.find((l) => l.level === place?.level);
  return (
    <main className={styles["large"]}>
      <header>
        <h1>{step?.title ?? state.garment.name}</h1>
        <p className="quiet">
          {state.garment.name}, {words.of("worn", tryOn.worn ?? "right_side_out")}
        </p>
      </header>
      <p className={styles["large-question"]}>{step?.question ?? "Nothing is asked yet."}</p>
      {number && (
        <p className={styles["large-typed"]} aria-live="polite">
          <Words>{number}</Words> <small>{where}</small>
        </p>
      )}
      <div className={styles["large-work"]}>
        <PlacePicture stand={stand} side={typedSide ?? pinned.at(-1)?.side ?? place?.sides[0] ?? null} />
        <div>
          {pinned.length === 0 && !step?.hem && <p className="quiet">Nothing entered here yet.</p>}
          <dl className={styles["large-figures"]}>
            {pinned.map(({ place: at, side }) => (
              <div key={at.name + side.side}>
                <dt>
                  {at.name}, {side.words}
                </dt>
                <dd>
                  {side.pin ? (
                    <>
                      <strong>
                        <Words>{side.pin.read.text}</Words>
                      </strong>{" "}
                      read · <Words>{side.pin.edges}</Words> per edge · <Words>{side.pin.whole.text}</Words>{" "}
                      altogether
                    </>
                  ) : (
                    words.of("why", side.left_out ?? "")
                  )}
                </dd>
              </div>
            ))}
            {(step?.hem ?? [])
              .filter((h) => h.mark)
              .map((h) => (
                <div key={h.words}>
                  <dt>{h.words}</dt>
                  <dd>
                    <strong>
                      <Words>{h.mark?.first.text ?? ""}</Words>
                    </strong>
                    {h.mark?.again && (
                      <>
                        , upright <Words>{h.mark.again.text}</Words>
                      </>
                    )}
                  </dd>
                </div>
              ))}
          </dl>
          {level && (
            <p className={styles["large-level"]}>
              {words.of("level", level.level)} will measure{" "}
              <strong>
                <Words>{level.after.text}</Words>
              </strong>{" "}
              round, now <Words>{level.before.text}</Words>
            </p>
          )}
        </div>
      </div>
    </main>
  );
}
