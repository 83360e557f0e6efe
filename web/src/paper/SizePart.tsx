import { useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Checkbox, Segmented, Skeleton } from "antd";
import { clsx } from "clsx";
import {
  answer,
  api,
  problemOf,
  type Garment,
  type Pattern,
  type SizeCandidate,
  type Sizes,
  type Taste,
} from "../api/client";
import { LengthField } from "../document/LengthField";
import { Words } from "../drawing/Words";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import sheet from "../shell/sheet.module.css";
import { Charts } from "./Charts";
import styles from "./paper.module.css";

interface Props {
  id: string;
  pattern: Pattern;
  onSet: (part: Partial<Pattern>) => void;
}

interface SizeProps extends Props {
  wearer: string;
  /** The garment as it is stored: sums follow it. */
  follows: unknown;
  onFacts: (part: Pick<Garment, "levels" | "seams">) => void;
}

/** Which size is cut: what the charts say, what is wanted, and the sizes that come nearest with their whole sums. */
export function SizePart({ id, wearer, pattern, follows, onSet, onFacts }: SizeProps) {
  const { tape } = useSettings();
  const found = useQuery({
    queryKey: ["sizes", id, pattern, follows, tape],
    queryFn: () =>
      answer(
        api.POST("/api/v1/garments/{garment}/sizes", {
          params: { path: { garment: id }, query: { tape } },
          body: { pattern },
        }),
      ),
    placeholderData: (before) => before,
    gcTime: 0,
  });
  if (found.isError && !found.data)
    return <Trouble problem={problemOf(found.error)} retry={() => void found.refetch()} />;
  if (!found.data) return <Skeleton active paragraph={{ rows: 8 }} />;
  const sizes = found.data;
  const shown = [...sizes.candidates, ...(sizes.chosen ? [sizes.chosen] : [])];
  const chosen = shown.find((c) => c.is_chosen);
  const choose = (candidate: SizeCandidate | null) => {
    onSet({ chosen: candidate?.choice ?? null });
  };
  return (
    <>
      <section className={clsx("sheet", styles["size"])} aria-label="Which size">
        <h2>Which size?</h2>
        {chosen ? (
          <p className={styles["cut"]}>
            Cut <strong>{chosen.title}</strong>
            <Button
              type="link"
              onClick={() => {
                choose(null);
              }}
            >
              choose again
            </Button>
          </p>
        ) : (
          sizes.needs.length === 0 && (
            <p className={styles["cut"]}>Not chosen yet: every sum below is the whole of it.</p>
          )
        )}
        {sizes.as_cut && (
          <p className={styles["as-cut"]} role="status">
            {sizes.as_cut.says}.
            <Button
              type="primary"
              onClick={() => {
                if (sizes.as_cut) onFacts({ levels: sizes.as_cut.levels, seams: sizes.as_cut.seams });
              }}
            >
              Give it those of {chosen?.title}
            </Button>
          </p>
        )}
        {sizes.needs.map((says) => (
          <p key={says} className={styles["needs"]}>
            {says}
          </p>
        ))}
        {sizes.flags.length > 0 && (
          <ul className={styles["flags"]}>
            {sizes.flags.map((says) => (
              <li key={says}>⚠ {says}.</li>
            ))}
          </ul>
        )}
        {sizes.wanted.length > 0 && (
          <Wanted wearer={wearer} id={id} sizes={sizes} pattern={pattern} onSet={onSet} />
        )}
        {shown.length > 0 && (
          <>
            <ol className={styles["candidates"]}>
              {shown.map((candidate) => (
                <Candidate
                  key={candidate.key}
                  candidate={candidate}
                  onChoose={choose}
                  onLengths={(lengths) => {
                    onSet({ changes: [...(pattern.changes ?? []), ...lengths] });
                  }}
                />
              ))}
            </ol>
            <p className="quiet">{sizes.says}</p>
          </>
        )}
      </section>
      <Charts sizes={sizes} pattern={pattern} onSet={onSet} />
    </>
  );
}

interface WantedProps extends Props {
  wearer: string;
  sizes: Sizes;
}

/** How much ease is wanted at each level, and where that comes from. */
function Wanted({ wearer, sizes, pattern, onSet }: WantedProps) {
  const set = (level: Sizes["wanted"][number]["level"], ease: string | null) => {
    const others = (pattern.ease ?? []).filter((e) => e.level !== level);
    onSet({ ease: ease === null ? others : [...others, { level, ease }] });
  };
  return (
    <>
      <div className={styles["editor-tools"]}>
        <span id="layers-inside">Layers inside it, a lining or padding</span>
        <Segmented<number>
          aria-labelledby="layers-inside"
          options={[0, 1, 2, 3].map((n) => ({ value: n, label: n === 0 ? "none" : String(n) }))}
          value={pattern.layers ?? 0}
          onChange={(layers) => {
            onSet({ layers });
          }}
        />
        <Checkbox
          checked={pattern.drapes ?? false}
          onChange={(event) => {
            onSet({ drapes: event.target.checked });
          }}
        >
          its cloth falls more softly than the toile’s
        </Checkbox>
      </div>
      <ul className={styles["wanted"]} aria-label="Ease that is wanted, on the whole girth">
        {sizes.wanted.map((w) => (
          <li key={w.level}>
            <span className={styles["level"]}>
              <strong>{w.name}</strong>
              <small className="quiet">{w.from}</small>
            </span>
            <LengthField
              label={`Ease wanted at the ${w.name}, altogether`}
              shown={w.ease.text}
              onRead={(ease) => {
                set(w.level, ease);
              }}
              onEmpty={() => {
                set(w.level, null);
              }}
            />
            <span className={styles["sum"]}>
              body + ease: <span className="figure">{w.sum}</span>
              {w.may_keep && <KeepTaste wearer={wearer} taste={w.may_keep} />}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** Keeps what was asked for as what the wearer likes: it is wanted of whatever is made next. */
function KeepTaste({ wearer, taste }: { wearer: string; taste: Taste }) {
  const client = useQueryClient();
  const { message } = App.useApp();
  const { tape } = useSettings();
  const keep = async () => {
    const path = { wearer };
    const { state } = await answer(
      api.GET("/api/v1/wearers/{wearer}", { params: { path, query: { tape } } }),
    );
    const is = (other: Taste) =>
      other.level === taste.level && other.class === taste.class && other.structure === taste.structure;
    const others = (state.wearer.taste ?? []).filter((other) => !is(other));
    const body = { version: state.version, wearer: { ...state.wearer, taste: [...others, taste] } };
    await answer(api.PUT("/api/v1/wearers/{wearer}", { params: { path, query: { tape } }, body }));
    await client.invalidateQueries({ queryKey: ["sizes"] });
  };
  return (
    <Button
      type="link"
      size="small"
      onClick={() => {
        void keep().catch((error: unknown) => message.error(problemOf(error).detail));
      }}
    >
      keep as what is liked
    </Button>
  );
}

interface CandidateProps {
  candidate: SizeCandidate;
  onChoose: (candidate: SizeCandidate) => void;
  /** Does what its lengths say on the pieces. */
  onLengths: (changes: SizeCandidate["lengths"][number]["changes"]) => void;
}

/** One choice: what is cut, how its girths come about, what has to be done to the paper. */
function Candidate({ candidate, onChoose, onLengths }: CandidateProps) {
  return (
    <li
      className={clsx(styles["candidate"], candidate.is_chosen && styles["chosen"])}
      aria-label={candidate.title}
    >
      <h3>
        {candidate.title}
        <small>{candidate.closeness}</small>
      </h3>
      <dl className={styles["levels"]}>
        {candidate.levels.map((level) => (
          <div key={level.level}>
            <dt>
              {level.name}
              <small className="quiet">{level.ease} all round</small>
            </dt>
            <dd>
              <Words>{level.sum}</Words>
              <strong className={clsx(!level.is_exact && styles["off"])}>{level.beside}</strong>
            </dd>
          </div>
        ))}
      </dl>
      {candidate.operations.length > 0 && (
        <ul className={styles["operations"]} aria-label="To do on the paper">
          {candidate.operations.map((does) => (
            <li key={does}>{does}</li>
          ))}
        </ul>
      )}
      {candidate.lengths.length > 0 && (
        <dl className={styles["lengths"]}>
          {candidate.lengths.map((length) => (
            <div key={length.name + length.sum}>
              <dt>{length.name}</dt>
              <dd>
                {length.does}
                <small className="quiet">{length.sum}</small>
                {candidate.is_chosen && length.changes.length > 0 && (
                  <Button
                    size="small"
                    onClick={() => {
                      onLengths(length.changes);
                    }}
                  >
                    Do it on the pieces
                  </Button>
                )}
                {candidate.is_chosen && length.on_paper && (
                  <small className={styles["true"]}>✓ {length.on_paper}</small>
                )}
              </dd>
            </div>
          ))}
        </dl>
      )}
      {candidate.flags.map((says) => (
        <p key={says} className={styles["flag"]}>
          ⚠ {says}.
        </p>
      ))}
      {candidate.is_chosen ? (
        <p className={sheet["tools"]}>
          <strong>✓ This one is cut</strong>
        </p>
      ) : (
        <Button
          onClick={() => {
            onChoose(candidate);
          }}
        >
          Cut this one
        </Button>
      )}
    </li>
  );
}
