import { useQueryClient } from "@tanstack/react-query";
import { Alert, Skeleton } from "antd";
import { useCallback, useDeferredValue, useEffect, useMemo, useState } from "react";
import { Link, Navigate, useParams, useSearchParams } from "react-router";
import { answer, api, problemOf, type Garment, type GarmentState, type TryOn } from "../api/client";
import { EaseLadder } from "../drawing/EaseLadder";
import { STAGES, StageTape, type StageKey } from "../drawing/StageTape";
import { StandView, type Part } from "../drawing/StandView";
import { keepDraft } from "../kept/drafts";
import { Conflict, Saved } from "../kept/Saved";
import { UndoTools } from "../kept/UndoTools";
import { useKept, type Kept } from "../kept/useKept";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import { ApartOnTwo } from "../tryon/ApartOnTwo";
import { TryOnStage } from "../tryon/TryOnStage";
import { factsKey, newTryOn, useGarment, type Opened } from "../tryon/useGarment";
import { draftsOfGarment, useTryOn, type OneTryOn } from "../tryon/useTryOn";
import { LinesStage } from "./LinesStage";
import { withSeam } from "./line";
import { LookOverStage } from "./LookOverStage";
import { useLookOver, useStand } from "./useDerived";
import { useSolved } from "./useSolved";
import { useWhatIf } from "./useWhatIf";
import "./garment.css";
import "./pins.css";

/** A garment, the main place: its stages across the top, the stand on the left, the work of the stage on the right. */
export default function GarmentPage() {
  const { garment = "", stage } = useParams();
  const opened = useGarment(garment, "garment");
  if (opened.isPending) {
    return (
      <main className="garment">
        <Skeleton active paragraph={{ rows: 10 }} />
      </main>
    );
  }
  if (opened.isError)
    return <Trouble problem={problemOf(opened.error)} retry={() => void opened.refetch()} />;
  const { state } = opened.data;
  const known = STAGES.find((s) => s.key === stage);
  if (!known) return <Navigate to={`/garments/${garment}/${stageOf(state)}`} replace />;
  return <Work key={opened.dataUpdatedAt} opened={opened.data} stage={known.key} />;
}

/** Where to go on: with what was pinned, else with what is not measured yet. */
function stageOf(state: GarmentState): StageKey {
  const { garment, try_ons } = state.document;
  if (try_ons?.length) return "lines";
  return garment.levels.every((l) => l.assumed) ? "look-over" : "try-on";
}

const SEAM = "seam.";

/** The change to begin with: a seam that is pinned, a dart, else the garment's first seam. */
function firstChange(garment: Garment, tryOn: TryOn): string {
  const dart = tryOn.darts?.[0]?.dart;
  return (
    tryOn.alterations?.[0]?.seam ??
    (dart ? `dart.${dart}` : undefined) ??
    garment.seams[0]?.seam ??
    "side_seam"
  );
}

/** The change that a part of the stand is about: a seam or a dart. */
const changeAt = (part: Part): string | undefined =>
  part.seam ?? (part.key?.startsWith("dart.") ? part.key : undefined);

/** The garment's facts, kept; and the try-on that is open, each for itself. */
function Work({ opened, stage }: { opened: Opened; stage: StageKey }) {
  const { state } = opened;
  const { tape } = useSettings();
  const queries = useQueryClient();
  const [search, setSearch] = useSearchParams();
  const facts = useKept<Garment>({
    id: factsKey(state.id),
    initial: state.document.garment,
    version: state.version,
    draft: opened.facts,
    undoable: stage === "look-over",
    store: async (version, garment) => {
      const { wearer_id, archived } = state;
      const body = { version, wearer_id, archived, garment };
      const params = { path: { garment: state.id }, query: { tape } };
      return { version: (await answer(api.PUT("/api/v1/garments/{garment}", { params, body }))).version };
    },
  });
  const [tryOns, setTryOns] = useState(() => opened.tryOns);
  useEffect(
    () => () => {
      void queries.invalidateQueries({ queryKey: ["rail"] });
    },
    [queries],
  );
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
        setTryOns(left.length > 0 ? left : [newTryOn(state.id)]);
      }}
    />
  );
}

interface TryOnWorkProps {
  state: GarmentState;
  stage: StageKey;
  facts: Kept<Garment>;
  one: OneTryOn;
  all: OneTryOn[];
  onOpen: (id: string) => void;
  onNew: (tryOn: OneTryOn) => void;
  onRemove: (id: string) => void;
}

function TryOnWork({ state, stage, facts, one, all, onOpen, onNew, onRemove }: TryOnWorkProps) {
  const { tape } = useSettings();
  const working = useTryOn(one, { undoable: stage !== "look-over" });
  const garment = facts.value;
  const whatIf = useWhatIf(working);
  const shown = stage === "lines" ? whatIf.value : working.value;
  const [change, setChange] = useState(() => firstChange(garment, shown));
  const [question, setQuestion] = useState<string | null>(null);
  const document = useMemo(
    () => ({
      ...state.document,
      garment,
      try_ons: [stage === "lines" ? withSeam(garment, shown, change) : shown],
    }),
    [state.document, garment, shown, stage, change],
  );
  const { solved, problem, preview, letGo } = useSolved(document, tape);
  const lookOver = useLookOver(state.id, garment, tape, stage === "look-over");
  const result = solved?.try_ons[0];
  // While something is dragged the strip is painted first; the stand and the ladder follow.
  const later = useDeferredValue(solved);
  const looksOver = stage === "look-over";
  const stand = useStand(state.id, garment);
  const changes = looksOver ? undefined : later?.try_ons[0]?.stand;
  const levels = looksOver ? lookOver.value?.levels : later?.try_ons[0]?.levels;
  const hasCards =
    [...(result?.seams ?? []), ...(result?.darts ?? [])].some((s) => s.is_altered) ||
    Boolean(result?.elastic?.cut);
  const isClear = hasCards && (result?.checks.every((c) => c.outcome !== "stop" || c.passed_over) ?? false);
  const shownKept = looksOver ? facts : working;
  const canPick = useCallback((part: Part) => looksOver || changeAt(part) !== undefined, [looksOver]);
  const pick = useCallback(
    (part: Part) => {
      const changed = changeAt(part);
      if (looksOver) setQuestion(part.key ?? null);
      else if (changed) setChange(changed);
    },
    [looksOver],
  );
  const stale = facts.problem?.stored_garment;
  return (
    <main className="garment">
      <div className="garment-head">
        <h1>{garment.name}</h1>
        <p className="quiet">
          <Link to={`/people/${state.wearer_id}`}>{garment.wearer.name}</Link> · {garment.cloth.name}
          {garment.toile && " · toile"}
        </p>
        {looksOver && (
          <span className="undo-tools">
            <UndoTools
              canUndo={facts.canUndo}
              canRedo={facts.canRedo}
              onUndo={facts.undo}
              onRedo={facts.redo}
            />
          </span>
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
      <StageTape
        garment={state.id}
        isLookedOver={garment.levels.some((l) => !l.assumed)}
        hasCards={hasCards}
        isClear={isClear}
      />
      {stale && (
        <Conflict
          what="garment"
          there={factsInWords(stale.document.garment)}
          here={factsInWords(garment)}
          onTake={() => {
            facts.take({ value: stale.document.garment, version: stale.version });
          }}
          onKeep={() => {
            facts.keep({ value: stale.document.garment, version: stale.version });
          }}
        />
      )}
      <ApartOnTwo kept={working} />
      <div className={stage === "lines" ? "garment-work" : "garment-work wide"}>
        <aside className="garment-stand" aria-label="The stand">
          {levels ? (
            <>
              <section className="sheet">
                {stand && (
                  <StandView
                    stand={stand}
                    changes={changes}
                    levels={levels}
                    picked={looksOver ? question : change.startsWith("dart.") ? change : SEAM + change}
                    canPick={canPick}
                    onPick={pick}
                  />
                )}
              </section>
              <section className="sheet" aria-label="Ease">
                <h2>What it {looksOver ? "measures" : "will measure"}</h2>
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
        {looksOver && (
          <LookOverStage
            id={state.id}
            garment={garment}
            lookOver={lookOver.value}
            problem={lookOver.problem}
            picked={question}
            onPick={setQuestion}
            onChange={facts.change}
          />
        )}
        {stage === "try-on" && (
          <TryOnStage
            garment={garment}
            one={one}
            all={all}
            kept={working}
            solved={solved}
            onOpen={onOpen}
            onNew={onNew}
            onRemove={onRemove}
          />
        )}
        {stage === "lines" && (
          <LinesStage
            id={state.id}
            garment={garment}
            solved={solved}
            problem={problem}
            picked={change}
            onPick={setChange}
            whatIf={whatIf}
            onPreview={preview}
            onLetGo={letGo}
          />
        )}
      </div>
    </main>
  );
}

const factsInWords = (garment: Garment) =>
  `${garment.name}, ${garment.cloth.name}; ${garment.levels
    .map((l) => `${l.level} ${"girth" in l.width ? l.width.girth : `${l.width.laid_flat} flat`}`)
    .join(", ")}`;
