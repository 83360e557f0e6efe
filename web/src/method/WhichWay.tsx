import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Segmented, Select, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import {
  answer,
  api,
  problemOf,
  type ChangeKey,
  type Document,
  type LevelResult,
  type Method,
  type Methods,
  type Stand,
  type TryOn,
  type WantedChange,
} from "../api/client";
import * as queries from "../api/queries";
import { documentOf, stateOf } from "../document/changes";
import { LengthField } from "../document/LengthField";
import { useStand } from "../document/useDerived";
import { useWords } from "../document/useWords";
import { StandSketch } from "../drawing/StandView";
import { Words } from "../drawing/Words";
import { useSettings } from "../settings";
import styles from "./method.module.css";
import sheet from "../shell/sheet.module.css";

interface Props {
  id: string;
  garment: Document;
  tryOn: TryOn;
  /** The levels of the garment, as they are measured. */
  levels: LevelResult[];
  /** What is wanted is entered like everything else. */
  onTryOn: (tryOn: TryOn) => void;
  /** Tries a way out in Lines. */
  onTake: (changes: NonNullable<TryOn["changes"]>, first: ChangeKey | undefined) => void;
  onClose: () => void;
}

type From = "typed" | "pins";

/** From what is wanted at levels to the ways that could carry it: the best side by side, and why the others fell. */
export function WhichWay({ id, garment, tryOn, levels, onTryOn, onTake, onClose }: Props) {
  const { tape } = useSettings();
  const isPinned = (tryOn.changes ?? []).length > 0;
  const isTyped = (tryOn.wanted ?? []).length > 0;
  const [from, setFrom] = useState<From>(isPinned && !isTyped ? "pins" : "typed");
  const asked = { ...tryOn, versions: [] };
  const found = useQuery({
    queryKey: ["methods", garment.states, garment.wearer, garment.wishes, asked, from, tape],
    queryFn: () =>
      answer(
        api.POST("/api/v1/methods", {
          params: { query: { tape, from } },
          body: documentOf(garment, [asked]),
        }),
      ),
    placeholderData: (before) => before,
    gcTime: 0,
  });
  const facts = stateOf(garment, tryOn)?.garment;
  return (
    <section className={clsx("sheet", styles["which-way"])} aria-label="Which way">
      <div className={sheet["section-head"]}>
        <h2>Which way?</h2>
        <div className={sheet["tools"]}>
          <Segmented<From>
            aria-label="What is wanted"
            options={[
              { value: "typed", label: "what is typed here" },
              { value: "pins", label: "what the pins come to", disabled: !isPinned },
            ]}
            value={from}
            onChange={setFrom}
          />
          <Button onClick={onClose}>Back to the lines</Button>
        </div>
      </div>
      {from === "typed" && (
        <Wanted id={id} tryOn={tryOn} levels={levels} found={found.data} onTryOn={onTryOn} />
      )}
      {found.isError && (
        <p className="field-trouble" role="alert">
          {problemOf(found.error).title}. {problemOf(found.error).detail}
        </p>
      )}
      {!found.data && !found.isError && <Skeleton active paragraph={{ rows: 6 }} />}
      {found.data && facts && (
        <Found
          id={id}
          found={found.data}
          from={from}
          worn={{ garment: facts, wearer: garment.wearer }}
          onTake={onTake}
        />
      )}
    </section>
  );
}

interface WantedProps {
  id: string;
  tryOn: TryOn;
  levels: LevelResult[];
  found: Methods | undefined;
  onTryOn: (tryOn: TryOn) => void;
}

/** By how much each girth is to change: typed, or read off another garment that fits. */
function Wanted({ id, tryOn, levels, found, onTryOn }: WantedProps) {
  const words = useWords();
  const wanted = tryOn.wanted ?? [];
  const set = (level: WantedChange["level"], by: string | null) => {
    const others = wanted.filter((w) => w.level !== level);
    onTryOn({ ...tryOn, wanted: by === null ? others : [...others, { level, by }] });
  };
  const shown = levels.filter((l, n) => levels.findIndex((other) => other.level === l.level) === n);
  return (
    <>
      <p className="quiet">
        By how much each girth is to change, altogether: −4 takes in, 2 lets out, 0 keeps it as it is.
      </p>
      <ul className={styles["wanted"]} aria-label="By how much each girth is to change">
        {shown.map((level) => {
          const there = found?.wanted.find((w) => w.level === level.level);
          const name = words.of("level", level.level);
          const each = level.of === "garment" ? "all round" : "round each";
          return (
            <li key={level.level}>
              <span className={styles["wanted-level"]}>
                <strong>{name}</strong>
                <span className="quiet">
                  {level.before.text} {each}
                  {level.ease_before && `, ${level.ease_before.text} ease`}
                  {level.comfort && `: ${words.of("ease", level.comfort.now)}`}
                </span>
              </span>
              <LengthField
                label={`Change of the ${name}, ${each}`}
                shown={wanted.some((w) => w.level === level.level) ? (there?.by.text ?? "") : ""}
                onRead={(by) => {
                  set(level.level, by);
                }}
                onEmpty={() => {
                  set(level.level, null);
                }}
              />
              <span className={styles["wanted-says"]}>{there?.words ?? ""}</span>
            </li>
          );
        })}
      </ul>
      {found?.without?.map((says) => (
        <p key={says} className="field-trouble">
          {says}
        </p>
      ))}
      <LikeAnother id={id} tryOn={tryOn} onTryOn={onTryOn} />
    </>
  );
}

/** "As my blue one": what another garment measures at the same levels. */
function LikeAnother({ id, tryOn, onTryOn }: Pick<WantedProps, "id" | "tryOn" | "onTryOn">) {
  const { tape } = useSettings();
  const client = useQueryClient();
  const rail = useQuery(queries.rail(tape));
  const [other, setOther] = useState<string | null>(null);
  const like = useQuery({
    queryKey: ["like", id, other, tape],
    queryFn: () =>
      answer(
        api.GET("/api/v1/garments/{garment}/like/{other}", {
          params: { path: { garment: id, other: other ?? "" }, query: { tape } },
        }),
      ),
    enabled: other !== null,
    staleTime: 0,
  });
  const others = (rail.data ?? []).filter((g) => g.id !== id);
  return (
    <div className={styles["like"]}>
      <div className={styles["like-which"]}>
        <span>Like one that fits</span>
        <Select
          aria-label="Like one that fits"
          placeholder="which garment fits?"
          showSearch={{ optionFilterProp: "label" }}
          allowClear
          popupMatchSelectWidth={false}
          value={other}
          options={others.map((g) => ({ value: g.id, label: `${g.name} (${g.wearer})` }))}
          onChange={(chosen: string | undefined) => {
            setOther(chosen ?? null);
            void client.invalidateQueries({ queryKey: ["like"] });
          }}
        />
      </div>
      {like.isError && <p className="field-trouble">{problemOf(like.error).detail}</p>}
      {like.data && (
        <div className={styles["like-says"]}>
          {like.data.lines.length === 0 ? (
            <p>Nothing of it can be compared.</p>
          ) : (
            <dl>
              {like.data.lines.map((line) => (
                <div key={line.level}>
                  <dt>{line.name}</dt>
                  <dd className="figure">
                    <Words>{line.sum}</Words>
                  </dd>
                </div>
              ))}
            </dl>
          )}
          <ul className="quiet">
            {like.data.cannot.map((says) => (
              <li key={says}>{says}</li>
            ))}
          </ul>
          {like.data.wanted.length > 0 && (
            <Button
              onClick={() => {
                onTryOn({ ...tryOn, wanted: like.data.wanted });
              }}
            >
              Want that here
            </Button>
          )}
        </div>
      )}
    </div>
  );
}

interface FoundProps {
  id: string;
  found: Methods;
  from: From;
  worn: Parameters<typeof useStand>[1];
  onTake: Props["onTake"];
}

function Found({ id, found, from, worn, onTake }: FoundProps) {
  const stand = useStand(id, worn);
  const isAsked = found.wanted.some((w) => w.by.nm !== 0);
  if (!isAsked) {
    return (
      <p className={clsx("quiet", sheet["empty"])}>
        {from === "typed"
          ? "Nothing is wanted yet. Type it beside a girth, or say which garment fits."
          : "The pins take nothing off any girth."}
      </p>
    );
  }
  return (
    <>
      {from === "pins" && (
        <p>Wanted: {found.wanted.map((w) => `${w.name} ${w.words}`).join("; ")}. Whatever seam carries it.</p>
      )}
      {found.nearest && (
        <p className={styles["nearest"]} role="alert">
          <strong>⚠</strong> <Words>{found.nearest.says}</Words>
        </p>
      )}
      <div className={styles["methods"]}>
        {found.best.map((method, n) => (
          <Way key={method.key} method={method} place={n + 1} stand={stand} onTake={onTake} />
        ))}
        {found.nearest && <Way method={found.nearest.method} place={null} stand={stand} onTake={onTake} />}
      </div>
      {found.fallen.length > 0 && (
        <details className={styles["fallen"]}>
          <summary>Why not another way? {found.fallen.flatMap((f) => f.titles).length} more</summary>
          <dl>
            {found.fallen.map((fallen) => (
              <div key={fallen.titles.join()}>
                <dt>
                  {fallen.titles.map((title) => (
                    <div key={title}>{title}</div>
                  ))}
                </dt>
                <dd>
                  <Words>{fallen.why}</Words>
                  {fallen.reason && (
                    <span className="quiet">
                      {" "}
                      <Words>{fallen.reason}</Words>
                    </span>
                  )}
                </dd>
              </div>
            ))}
          </dl>
        </details>
      )}
      <p className="quiet">{found.says}</p>
    </>
  );
}

interface WayProps {
  method: Method;
  /** Its place among the best; nothing for the nearest that goes. */
  place: number | null;
  stand: Stand | null;
  onTake: Props["onTake"];
}

/** One way: what it comes to, what speaks against it, what it takes, what stays to be seen. */
function Way({ method, place, stand, onTake }: WayProps) {
  return (
    <article className={styles["way"]} aria-label={method.title}>
      <h3>
        {place !== null && <span className={styles["place"]}>{place}</span>} {method.title}
      </h3>
      <p className={styles["because"]}>{method.because}</p>
      {stand && <StandSketch stand={stand} changes={method.stand} />}
      <ul className={styles["sums"]}>
        {method.levels.map((level) => (
          <li key={level.name} className={clsx(level.is_unasked && "quiet")}>
            <span className={styles["sum-head"]}>
              <span>
                {level.name}
                {level.is_unasked && ", not asked for"}
              </span>
              <strong className="figure">{level.words}</strong>
            </span>
            <small className="quiet">
              <Words>{level.sum}</Words>
            </small>
            {level.beside && <small>{level.beside}</small>}
          </li>
        ))}
      </ul>
      <dl className={styles["facts"]}>
        <dt>takes</dt>
        <dd>{method.takes}</dd>
        {method.opens.length > 0 && (
          <>
            <dt>opens first</dt>
            <dd>{method.opens.join(", ")}</dd>
          </>
        )}
        <dt>shows</dt>
        <dd>{method.shows.length > 0 ? method.shows.join("; ") : "nothing outside"}</dd>
        <dt>undone</dt>
        <dd>{method.undone}</dd>
        {method.does.length > 0 && (
          <>
            <dt>also</dt>
            <dd>
              <Words>{method.does.join("; ")}</Words>
            </dd>
          </>
        )}
      </dl>
      {method.checks.length > 0 && (
        <ul className={styles["against"]}>
          {method.checks.map((check) => (
            <li key={check.title + check.figures}>
              <strong>
                {check.outcome === "passes" ? "" : "⚠ "}
                {check.title}
              </strong>{" "}
              <Words>{check.figures}</Words>
            </li>
          ))}
        </ul>
      )}
      <Button
        type={place === 1 ? "primary" : "default"}
        block
        onClick={() => {
          onTake(method.changes, method.first ?? undefined);
        }}
      >
        Try it in Lines
      </Button>
    </article>
  );
}
