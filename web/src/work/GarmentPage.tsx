import { Alert, Skeleton } from "antd";
import { clsx } from "clsx";
import { useCallback, useDeferredValue, useMemo, useState } from "react";
import { Link, Navigate, useNavigate, useParams, useSearchParams } from "react-router";
import {
  answer,
  api,
  problemOf,
  type ChangeKey,
  type Garment,
  type GarmentState,
  type Stage,
  type TryOn,
} from "../api/client";
import { ApartOnTwo } from "../document/ApartOnTwo";
import { changeAt, keyOf, newestFacts, placeOf, stateOf, withChange, withFacts } from "../document/changes";
import { keepDraft } from "../document/drafts";
import { Conflict, Saved } from "../document/Saved";
import { UndoTools } from "../document/UndoTools";
import { useLookOver, useStand } from "../document/useDerived";
import { factsKey, newestOf, newTryOn, useGarment, type Opened } from "../document/useGarment";
import { useKept, type Kept } from "../document/useKept";
import { useSolved } from "../document/useSolved";
import { draftsOfGarment, useTryOn, type OneTryOn } from "../document/useTryOn";
import { useWhatIf } from "../document/useWhatIf";
import { useWords } from "../document/useWords";
import { useWishes, type KeptWishes } from "../plan/useWishes";
import { EaseLadder } from "../drawing/EaseLadder";
import { StandView, type Part } from "../drawing/StandView";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import { STAGES, stageAt } from "./stages";
import { StageTrack } from "./StageTrack";
import styles from "./garment.module.css";

/** A garment, the main place: its stages across the top, the stand on the left, the work of the stage on the right. */
export default function GarmentPage() {
  const { garment = "", stage } = useParams();
  const opened = useGarment(garment, "garment");
  if (opened.isPending) {
    return (
      <main className={styles["garment"]}>
        <Skeleton active paragraph={{ rows: 10 }} />
      </main>
    );
  }
  if (opened.isError)
    return <Trouble problem={problemOf(opened.error)} retry={() => void opened.refetch()} />;
  const { state } = opened.data;
  const known = stageAt(stage);
  if (!known)
    return <Navigate to={`/garments/${garment}/${STAGES[state.go_on]?.path ?? "look-over"}`} replace />;
  return <Work key={opened.dataUpdatedAt} opened={opened.data} stage={known} />;
}

/** The change to begin with: the first that was entered, else the garment's first seam. */
function firstChange(garment: Garment, tryOn: TryOn): ChangeKey {
  const [first] = tryOn.changes ?? [];
  const begun = first && keyOf(first);
  return begun ?? `seam.${garment.seams[0]?.seam ?? "side_seam"}`;
}

/** The garment's facts, kept; and the try-on that is open, each for itself. */
function Work({ opened, stage }: { opened: Opened; stage: Stage }) {
  const { state } = opened;
  const { tape } = useSettings();
  const [search, setSearch] = useSearchParams();
  const facts = useKept<Garment>({
    id: factsKey(state.id),
    initial: newestFacts(state.document),
    version: state.version,
    draft: opened.facts,
    undoable: stage === "look_over",
    store: async (version, garment) => {
      const { wearer_id, archived } = state;
      const body = { version, wearer_id, archived, state: newestOf(state), garment };
      const params = { path: { garment: state.id }, query: { tape } };
      return { version: (await answer(api.PUT("/api/v1/garments/{garment}", { params, body }))).version };
    },
  });
  const wishes = useWishes(state, stage === "plan" || stage === "paper");
  const [tryOns, setTryOns] = useState(() => opened.tryOns);
  const wanted = search.get("try-on");
  const current = tryOns.find((t) => t.id === wanted) ?? tryOns.at(-1);
  const open = (id: string) => {
    setSearch({ "try-on": id }, { replace: true });
  };
  if (!current) return null;
  return (
    <TryOnWork
      key={current.id}
      state={state}
      stage={stage}
      facts={facts}
      wishes={wishes}
      one={current}
      all={tryOns}
      onOpen={open}
      onNew={(tryOn) => {
        // Begun is kept: it is stored at once, and other places find it.
        keepDraft(draftsOfGarment(state.id) + tryOn.id, {
          version: 0,
          base: tryOn.initial,
          value: tryOn.initial,
        });
        setTryOns([...tryOns, tryOn]);
        open(tryOn.id);
      }}
      onRemove={(id) => {
        const left = tryOns.filter((t) => t.id !== id);
        setTryOns(left.length > 0 ? left : [newTryOn(state.id, newestOf(state))]);
      }}
    />
  );
}

interface TryOnWorkProps {
  state: GarmentState;
  stage: Stage;
  facts: Kept<Garment>;
  wishes: KeptWishes;
  one: OneTryOn;
  all: OneTryOn[];
  onOpen: (id: string) => void;
  onNew: (tryOn: OneTryOn) => void;
  onRemove: (id: string) => void;
}

function TryOnWork(props: TryOnWorkProps) {
  const { state, stage, facts, wishes, one, all, onOpen, onNew, onRemove } = props;
  const { tape } = useSettings();
  const navigate = useNavigate();
  const looksOver = stage === "look_over";
  const working = useTryOn(one, { undoable: stage === "try_on" || stage === "lines" });
  const whatIf = useWhatIf(working);
  const shown = stage === "lines" ? whatIf.value : working.value;
  const document = useMemo(() => withFacts(state.document, facts.value), [state.document, facts.value]);
  // What is looked over is the garment as it is now; a try-on shows it as it was then.
  const garment = (looksOver ? undefined : stateOf(document, shown)?.garment) ?? facts.value;
  const [change, setChange] = useState(() => firstChange(garment, shown));
  const [question, setQuestion] = useState<string | null>(null);
  // A change that is open is drawn and named before anything is pinned on it.
  const drawn = useMemo(() => {
    const isThere = stage !== "lines" || placeOf(shown, change) >= 0;
    return isThere ? shown : withChange(shown, changeAt(shown, change));
  }, [shown, stage, change]);
  const { solved, problem, preview, letGo } = useSolved(document, drawn, tape);
  const worn = useMemo(() => ({ garment, wearer: document.wearer }), [garment, document.wearer]);
  const lookOver = useLookOver(state.id, worn, tape, looksOver);
  // While something is dragged the strip is painted first; the stand and the ladder follow.
  const later = useDeferredValue(solved);
  const stand = useStand(state.id, worn);
  const changes = looksOver ? undefined : later?.try_ons[0]?.stand;
  const levels = looksOver ? lookOver.value?.levels : later?.try_ons[0]?.levels;
  const shownKept = looksOver ? facts : working;
  const canPick = useCallback((part: Part) => looksOver || Boolean(part.change), [looksOver]);
  const pick = useCallback(
    (part: Part) => {
      if (looksOver) setQuestion(part.key ?? null);
      else if (part.change) setChange(part.change);
    },
    [looksOver],
  );
  const words = useWords();
  const inWords = (facts: Garment) => factsInWords(facts, (level) => words.of("level", level));
  const stale = facts.problem?.stored_garment;
  const Stage = STAGES[stage];
  // What is pinned is solved without the wishes of its garment: which stages it has, its page was told when it was opened.
  const pinned = solved?.stages ?? state.stages;
  const isAsOpened = Boolean(facts.value.toile) === Boolean(newestFacts(state.document).toile);
  const stages = (isAsOpened ? state.stages : pinned).map(
    (line) => pinned.find((other) => other.stage === line.stage) ?? line,
  );
  return (
    <main className={styles["garment"]}>
      <div className={styles["head"]}>
        <h1>{garment.name}</h1>
        <p className="quiet">
          <Link to={`/people/${state.wearer_id}`}>{document.wearer.name}</Link> · {garment.cloth.name}
          {garment.toile && " · toile"}
        </p>
        {looksOver && (
          <UndoTools
            canUndo={facts.canUndo}
            canRedo={facts.canRedo}
            onUndo={facts.undo}
            onRedo={facts.redo}
          />
        )}
        <Saved
          isStored={facts.isStored && working.isStored}
          problem={shownKept.problem ?? facts.problem ?? working.problem}
          onRetry={() => {
            facts.retry();
            working.retry();
          }}
        />
      </div>
      <StageTrack garment={state.id} stages={stages} />
      {stale && (
        <Conflict
          what="garment"
          there={inWords(newestFacts(stale.document))}
          here={inWords(facts.value)}
          onTake={() => {
            facts.take({ value: newestFacts(stale.document), version: stale.version });
          }}
          onKeep={() => {
            facts.keep({ value: newestFacts(stale.document), version: stale.version });
          }}
        />
      )}
      <ApartOnTwo kept={working} />
      <div className={clsx(styles["work"], stage !== "lines" && styles["wide"])}>
        <aside className={styles["stand"]} aria-label="The stand">
          {levels ? (
            <>
              <section className="sheet">
                {stand && (
                  <StandView
                    stand={stand}
                    changes={changes}
                    levels={levels}
                    picked={looksOver ? question : change}
                    canPick={canPick}
                    onPick={pick}
                  />
                )}
              </section>
              <section className="sheet" aria-label="Ease">
                <h2>
                  What it {looksOver ? "measures" : "will measure"}
                  {stage === "paper" && ", as it is chalked"}
                </h2>
                <EaseLadder levels={levels} />
              </section>
            </>
          ) : (
            <Skeleton active paragraph={{ rows: 12 }} />
          )}
        </aside>
        {problem && !problem.errors?.length && (
          <Alert type="warning" showIcon title={problem.title} description={problem.detail} />
        )}
        {Stage && (
          <Stage.Work
            state={state}
            document={document}
            facts={facts}
            wishes={wishes}
            one={one}
            all={all}
            working={working}
            whatIf={whatIf}
            solved={solved}
            problem={problem}
            lookOver={lookOver}
            question={question}
            onQuestion={setQuestion}
            change={change}
            onPickChange={setChange}
            onPreview={preview}
            onLetGo={letGo}
            onOpen={onOpen}
            onNew={onNew}
            onRemove={onRemove}
            onLead={(lead) => {
              // What is there already is not overwritten by what a sign would try.
              if (placeOf(working.value, lead.key) < 0) whatIf.begin(withChange(working.value, lead.change));
              setChange(lead.key);
              void navigate(`/garments/${state.id}/lines?try-on=${one.id}`);
            }}
          />
        )}
      </div>
    </main>
  );
}

const factsInWords = (garment: Garment, levelName: (level: string) => string) =>
  `${garment.name}, ${garment.cloth.name}; ${garment.levels
    .map((l) => `${levelName(l.level)} ${"girth" in l.width ? l.width.girth : `${l.width.laid_flat} flat`}`)
    .join(", ")}`;
