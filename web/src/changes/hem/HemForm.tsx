import { Button, Checkbox, Select } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import type { HemMark } from "../../api/client";
import { LengthField } from "../../document/LengthField";
import { markAt, withMark, withoutMark } from "../../document/entries";
import { useWords } from "../../document/useWords";
import { PictureView } from "../../drawing/PictureView";
import { Words } from "../../drawing/Words";
import type { Editing } from "../editors";
import { SidesSetting } from "../SidesSetting";
import { HemFigure } from "./HemFigure";
import { SlitAndLining } from "./SlitAndLining";
import { UnrolledHem } from "./UnrolledHem";
import changes from "../changes.module.css";
import drawing from "../../drawing/drawing.module.css";
import styles from "./hem.module.css";

/** What stands for nothing that was chosen. */
const USUAL = "usual";

/** A hem: what comes off around it, how it is turned, and where the cloth is folded and cut. */
export function HemForm(props: Editing<"hem">) {
  const { input, shows, onRemove } = props;
  if (!shows) return null;
  const [before, after] = [shows.picture_now, shows.picture];
  return (
    <div className={styles["hem"]}>
      <p className="quiet">{shows.from}</p>
      {shows.above && (
        <p className={styles["result"]} role="status">
          <strong className="figure">
            <Words>{shows.above}</Words>
          </strong>
        </p>
      )}
      {shows.edges.map((edge) => (
        <section key={edge.name} className={styles["edge"]}>
          {edge.name && <h3>{edge.name}</h3>}
          <p className={styles["result"]} role="status">
            <strong className="figure">
              <Words>{edge.off}</Words>
            </strong>
            {edge.girth && (
              <span className="quiet">
                {" "}
                · <Words>{edge.girth.text}</Words> round at the new edge
              </span>
            )}
          </p>
          <p className="quiet">
            <Words>{edge.sum}</Words>
          </p>
          <p>
            <Words>{edge.measured}</Words>
          </p>
          <UnrolledHem
            edge={edge.unrolled}
            name={`The edge laid flat: ${edge.off}`}
            marks={shows.marks}
            onMark={(mark, nm, done) => {
              props.dragging?.set(moved(props, mark, nm), done);
            }}
            step={props.dragging?.mark ?? 0}
            onLetGo={() => props.dragging?.onLetGo()}
          />
          {edge.facing && (
            <p>
              <Words>{edge.facing}</Words>
            </p>
          )}
        </section>
      ))}
      {shows.edges.length > 0 && (
        <>
          <p className={styles["legend"]}>
            <span className={clsx(drawing["key"], drawing["key-before"])}>present fold</span>
            <span className={clsx(drawing["key"], drawing["key-after"])}>new fold</span>
            <span className={clsx(drawing["key"], styles["key-cut"])}>cut</span>
            <span className={clsx(drawing["key"], styles["key-stitching"])}>stitching</span>
          </p>
          <div className={styles["sections"]}>
            {before && (
              <figure>
                <PictureView picture={before} label="The hem as it is, cut through" />
                <figcaption className="quiet">as it is</figcaption>
              </figure>
            )}
            <figure>
              <PictureView picture={after} label="The new hem, cut through" />
              <figcaption>
                <Words>{shows.turns}</Words>
              </figcaption>
            </figure>
          </div>
        </>
      )}
      {shows.lining && (
        <p>
          Lining: <Words>{shows.lining}</Words>
        </p>
      )}
      {shows.figure && (
        <figure className={styles["stands"]}>
          <HemFigure figure={shows.figure} />
          <figcaption className="quiet">in front, heights above the floor it stands on</figcaption>
        </figure>
      )}
      <Marks {...props} />
      <Wanted {...props} />
      <Turned {...props} />
      <SlitAndLining {...props} />
      {(input.off ?? input.from_body ?? input.turn ?? input.lengths ?? input.slit) && (
        <Button onClick={onRemove}>As the marks say</Button>
      )}
    </div>
  );
}

/** The try-on with a mark read as if so much more was taken off there: what counts of it, the upright reading or the only one. */
function moved({ input, shows, tryOn, dragging }: Editing<"hem">, mark: number, nm: number) {
  const place = shows?.marks[mark];
  const read = place?.again ?? place?.amount;
  if (!place || !read || !dragging) return tryOn;
  const at = { edge: input.hem, around: place.around, side: place.side ?? null };
  const there = markAt(tryOn, at);
  if (!there) return tryOn;
  const snapped = Math.round((read.nm + place.per_off * nm) / dragging.mark) * dragging.mark;
  const amount = dragging.onTape(Math.max(snapped, 0));
  const { how } = there;
  return place.again
    ? withMark(tryOn, at, { how, amount: there.amount, again: amount })
    : withMark(tryOn, at, { how, amount });
}

/** Marks around it, as they were read. */
function Marks({ input, shows, tryOn, onTryOn }: Editing<"hem">) {
  const words = useWords();
  const [how, setHow] = useState<HemMark["how"]>(
    tryOn.hem_marks?.find((mark) => mark.edge === input.hem)?.how ?? "turn_up",
  );
  if (!shows) return null;
  return (
    <div className={changes["line-settings"]}>
      <div>
        <span className={changes["label"]}>marked</span>
        <Select<HemMark["how"]>
          aria-label="How the marks are measured"
          options={words.options<HemMark["how"]>("hem_how")}
          value={how}
          popupMatchSelectWidth={false}
          onChange={(next) => {
            setHow(next);
            const marks = tryOn.hem_marks ?? [];
            onTryOn({
              ...tryOn,
              hem_marks: marks.map((mark) => (mark.edge === input.hem ? { ...mark, how: next } : mark)),
            });
          }}
        />
      </div>
      <table className={styles["marks"]} aria-label="Marks around the hem">
        <thead>
          <tr>
            <th scope="col">where</th>
            <th scope="col">read</th>
            <th scope="col">upright</th>
            <th scope="col">takes</th>
          </tr>
        </thead>
        <tbody>
          {shows.marks.map((mark) => {
            const place = { edge: input.hem, around: mark.around, side: mark.side ?? null };
            const there = markAt(tryOn, place);
            return (
              <tr key={mark.name}>
                <th scope="row">{mark.name}</th>
                <td>
                  <LengthField
                    label={`Mark at ${mark.name}`}
                    shown={mark.amount?.text ?? ""}
                    onRead={(amount) => {
                      onTryOn(withMark(tryOn, place, { how, again: there?.again ?? null, amount }));
                    }}
                    onEmpty={() => {
                      onTryOn(withoutMark(tryOn, place));
                    }}
                  />
                </td>
                <td>
                  {there && (
                    <LengthField
                      label={`Read upright at ${mark.name}`}
                      shown={mark.again?.text ?? ""}
                      onRead={(again) => {
                        onTryOn(withMark(tryOn, place, { how: there.how, amount: there.amount, again }));
                      }}
                      onEmpty={() => {
                        onTryOn(
                          withMark(tryOn, place, { how: there.how, amount: there.amount, again: null }),
                        );
                      }}
                    />
                  )}
                </td>
                <td className="quiet">
                  <Words>{mark.off ?? ""}</Words>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

type Landmark = NonNullable<Editing<"hem">["input"]["from_body"]>["landmark"];
type Shape = NonNullable<Editing<"hem">["input"]["shape"]>;
type Turn = NonNullable<Editing<"hem">["input"]["turn"]>;
type Cutting = NonNullable<Editing<"hem">["input"]["cutting"]>;
type Place = NonNullable<Editing<"hem">["input"]["shortened_at"]>;

/** How much, where it is not left to the marks; and in what shape. */
function Wanted({ input, shows, tryOn, complaint, onChange }: Editing<"hem">) {
  const words = useWords();
  const body = input.from_body;
  const fromFloor = tryOn.hem_marks?.some((mark) => mark.edge === input.hem && mark.how === "from_floor");
  return (
    <div className={changes["line-settings"]}>
      <div>
        <span className={changes["label"]}>take off</span>
        <LengthField
          label="What is taken off"
          shown={shows?.typed?.text ?? ""}
          placeholder="marks"
          complaint={complaint("off")}
          onRead={(off) => {
            onChange({ off });
          }}
          onEmpty={() => {
            onChange({ off: null });
          }}
        />
        <span className="quiet">− lets down</span>
      </div>
      {(fromFloor ?? input.clearance) && (
        <div>
          <span className={changes["label"]}>wanted above the floor</span>
          <LengthField
            label="How far above the floor the new edge hangs"
            shown={shows?.clearance?.text ?? ""}
            complaint={complaint("clearance")}
            onRead={(clearance) => {
              onChange({ clearance });
            }}
            onEmpty={() => {
              onChange({ clearance: null });
            }}
          />
        </div>
      )}
      {shows?.has_landmarks && (
        <div>
          <span className={changes["label"]}>or from the body</span>
          <Select<Landmark | typeof USUAL>
            aria-label="A length from the body"
            options={[{ value: USUAL, label: "by the marks" }, ...words.options<Landmark>("hem_landmark")]}
            value={body?.landmark ?? USUAL}
            popupMatchSelectWidth={false}
            onChange={(landmark) => {
              onChange({
                from_body: landmark === USUAL ? null : { ...body, landmark, above: body?.above ?? "0 cm" },
              });
            }}
          />
          {body && (
            <>
              <LengthField
                label="How far above it"
                shown={shows.above_landmark?.text ?? ""}
                onRead={(above) => {
                  onChange({ from_body: { ...body, above } });
                }}
              />
              <span className="quiet">above; − below. Heels</span>
              <LengthField
                label="How high the heels are"
                shown={shows.heel?.text ?? ""}
                onRead={(heel) => {
                  onChange({ from_body: { ...body, heel } });
                }}
                onEmpty={() => {
                  onChange({ from_body: { ...body, heel: null } });
                }}
              />
            </>
          )}
        </div>
      )}
      <div>
        <span className={changes["label"]}>shape</span>
        <Select<Shape | typeof USUAL>
          aria-label="How it follows its marks"
          options={[{ value: USUAL, label: "level where they agree" }, ...words.options<Shape>("hem_shape")]}
          value={input.shape ?? USUAL}
          popupMatchSelectWidth={false}
          onChange={(shape) => {
            onChange({ shape: shape === USUAL ? null : shape });
          }}
        />
        {input.shape === "shaped" &&
          (["front", "side", "back"] as const).map((place, index) => (
            <LengthField
              key={place}
              label={`Finished length, ${place}`}
              shown={shows?.lengths?.[index]?.text ?? input.lengths?.[place] ?? ""}
              placeholder={place}
              complaint={complaint(`lengths.${place}`)}
              onRead={(length) => {
                const { front = length, side = length, back = length } = input.lengths ?? {};
                onChange({ lengths: { front, side, back, [place]: length } });
              }}
            />
          ))}
      </div>
      <div>
        <span className={changes["label"]}>left longer, for washing</span>
        <LengthField
          label="Left so much longer"
          shown={shows?.longer_by?.text ?? ""}
          placeholder="none"
          complaint={complaint("longer_by")}
          onRead={(longer) => {
            onChange({ longer_by: longer });
          }}
          onEmpty={() => {
            onChange({ longer_by: null });
          }}
        />
      </div>
      <div>
        <span className={changes["label"]}>shortened</span>
        <Select<Place>
          aria-label="Where it is taken off"
          options={words
            .options<Place>("shortened_at")
            .filter(({ value }) => shows?.places.includes(value) ?? true)}
          value={input.shortened_at ?? "edge"}
          popupMatchSelectWidth={false}
          onChange={(place) => {
            onChange({ shortened_at: place });
          }}
        />
      </div>
      {input.hem === "body" && (
        <Checkbox
          checked={input.over_petticoat ?? false}
          onChange={({ target }) => {
            onChange({ over_petticoat: target.checked });
          }}
        >
          worn over a petticoat or a hoop
        </Checkbox>
      )}
      <SidesSetting
        sides={input.sides ?? null}
        onChange={(sides) => {
          onChange({ sides });
        }}
      />
    </div>
  );
}

/** How it is turned, and when it is cut. */
function Turned({ input, shows, complaint, onChange }: Editing<"hem">) {
  const words = useWords();
  if (!shows) return null;
  const turns = input.turns ?? [];
  return (
    <div className={changes["line-settings"]}>
      <div>
        <span className={changes["label"]}>turned as</span>
        <Select<Turn | typeof USUAL>
          aria-label="How it is turned"
          options={[
            { value: USUAL, label: `recommended: ${words.of("hem_turn", shows.recommended)}` },
            ...words.options<Turn>("hem_turn"),
          ]}
          value={input.turn ?? USUAL}
          popupMatchSelectWidth={false}
          onChange={(turn) => {
            onChange({ turn: turn === USUAL ? null : turn, turns: [] });
          }}
        />
      </div>
      {!input.turn && <p className="quiet">{shows.because}</p>}
      <div>
        <span className={changes["label"]}>{shows.turns_asked}</span>
        {[...turns, ""].slice(0, shows.turns_most).map((_, index) => (
          <LengthField
            key={index}
            label={`Turn ${index + 1}`}
            shown={shows.own_turns[index]?.text ?? ""}
            placeholder={index === 0 ? "as usual" : ""}
            complaint={complaint(`turns[${index}]`)}
            onRead={(length) => {
              onChange({ turns: [...turns.slice(0, index), length, ...turns.slice(index + 1)] });
            }}
            onEmpty={() => {
              onChange({ turns: turns.filter((_, n) => n !== index) });
            }}
          />
        ))}
      </div>
      <div>
        <span className={clsx(changes["label"])}>cut</span>
        <Select<Cutting>
          aria-label="When cloth is cut"
          options={words.options<Cutting>("cutting")}
          value={input.cutting ?? "after_try_on"}
          popupMatchSelectWidth={false}
          onChange={(cutting) => {
            onChange({ cutting });
          }}
        />
      </div>
    </div>
  );
}
