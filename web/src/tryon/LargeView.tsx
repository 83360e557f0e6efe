import type { Garment, LiveEvent, TryOn } from "../api/client";
import { Words } from "../drawing/Words";
import { spoken } from "../drawing/words";
import { useStand } from "../garment/useDerived";
import { useSolved } from "../garment/useSolved";
import { useSettings } from "../settings";
import { useMemo } from "react";
import { PlacePicture } from "./PlacePicture";
import { useAsking } from "./useAsking";
import "./fitting.css";

/** What is being asked and typed on the phone. */
export interface AskedNow {
  step: string;
  typed: string;
}

/** Takes in what was asked, from an event. */
export const askedIn = (event: LiveEvent, id: string): AskedNow | null =>
  "asked" in event && event.asked.try_on === id ? event.asked : null;

interface Props {
  id: string;
  garment: Garment;
  tryOn: TryOn;
  asked: AskedNow | null;
}

/** The try-on for the mirror or the sofa: what is asked now, and what it comes to, as large as it goes. */
export function LargeView({ id, garment, tryOn, asked }: Props) {
  const { tape } = useSettings();
  const asking = useAsking(garment, undefined, tryOn, tape);
  const stand = useStand(id, garment);
  const document = useMemo(() => ({ version: 1, garment, try_ons: [tryOn] }), [garment, tryOn]);
  const { solved } = useSolved(document, tape);
  const steps = asking.data?.steps ?? [];
  const step = steps.find((s) => s.key === asked?.step) ?? steps.find((s) => s.settled) ?? steps[0];
  const pinned = (step?.pins ?? []).flatMap((place) =>
    place.sides.filter((side) => side.pin ?? side.left_out).map((side) => ({ place, side })),
  );
  const place = step?.pins?.[0];
  const [where = "", number = ""] = asked?.typed.split(": ") ?? [];
  const typedSide = place?.sides.find((side) => side.words === where);
  const level = solved?.try_ons[0]?.levels.find((l) => l.level === place?.level);
  return (
    <main className="large">
      <header>
        <h1>{step?.title ?? garment.name}</h1>
        <p className="quiet">
          {garment.name}, {tryOn.worn === "inside_out" ? "inside out" : "right side out"}
        </p>
      </header>
      <p className="large-question">{step?.question ?? "Nothing is asked yet."}</p>
      {number && (
        <p className="large-typed" aria-live="polite">
          <Words>{number}</Words> <small>{where}</small>
        </p>
      )}
      <div className="large-work">
        <PlacePicture stand={stand} side={typedSide ?? pinned.at(-1)?.side ?? place?.sides[0] ?? null} />
        <div>
          {pinned.length === 0 && !step?.hem && <p className="quiet">Nothing entered here yet.</p>}
          <dl className="large-figures">
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
                      read ·{" "}
                      <Words>
                        {side.pin.front.nm === side.pin.back.nm
                          ? `${side.pin.front.text} each edge`
                          : `${at.edges[0]} edge ${side.pin.front.text}, ${at.edges[1]} edge ${side.pin.back.text}`}
                      </Words>{" "}
                      · <Words>{side.pin.whole.text}</Words> altogether
                    </>
                  ) : (
                    spoken(side.left_out ?? "")
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
            <p className="large-level">
              {spoken(level.level)} will measure{" "}
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
