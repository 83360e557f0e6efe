import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Skeleton } from "antd";
import { useCallback, useDeferredValue, useEffect, useMemo, useState } from "react";
import { Link, Navigate, useParams } from "react-router";
import { v7 as newId } from "uuid";
import {
  answer,
  api,
  problemOf,
  type Garment,
  type GarmentState,
  type Seam,
  type TryOn,
} from "../api/client";
import { EaseLadder } from "../drawing/EaseLadder";
import { STAGES, StageTape, type StageKey } from "../drawing/StageTape";
import { StandView, type Part } from "../drawing/StandView";
import { Conflict, Saved } from "../kept/Saved";
import { UndoTools } from "../kept/UndoTools";
import { useKept } from "../kept/useKept";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import { LinesStage } from "./LinesStage";
import { LookOverStage } from "./LookOverStage";
import { TryOnStage } from "./TryOnStage";
import { useLookOver, useStand } from "./useDerived";
import { useSolved } from "./useSolved";
import "./garment.css";

/** A garment, the main place: its stages across the top, the stand on the left, the work of the stage on the right. */
export default function GarmentPage() {
  const { garment = "", stage } = useParams();
  const state = useQuery({
    queryKey: ["garment", garment],
    queryFn: () => answer(api.GET("/api/v1/garments/{garment}", { params: { path: { garment } } })),
    // While it is worked on, this page is ahead of the server.
    staleTime: Infinity,
    gcTime: 0,
  });
  if (state.isPending) {
    return (
      <main className="garment">
        <Skeleton active paragraph={{ rows: 10 }} />
      </main>
    );
  }
  if (state.isError) return <Trouble problem={problemOf(state.error)} retry={() => void state.refetch()} />;
  const known = STAGES.find((s) => s.key === stage);
  if (!known) return <Navigate to={`/garments/${garment}/${stageOf(state.data)}`} replace />;
  return <Work key={state.dataUpdatedAt} state={state.data} stage={known.key} />;
}

/** Where to go on: with what was pinned, else with what is not measured yet. */
function stageOf(state: GarmentState): StageKey {
  const { garment, try_ons } = state.document;
  if (try_ons?.length) return "lines";
  return garment.levels.every((l) => l.assumed) ? "look-over" : "try-on";
}

/** The newest try-on, or a new one that is stored with its first change. */
function newest(state: GarmentState): { id: string; tryOn: TryOn; version: number } {
  const tryOns = state.document.try_ons ?? [];
  const last = tryOns.at(-1);
  if (last?.id) return { id: last.id, tryOn: last, version: state.try_on_versions.at(-1) ?? 0 };
  const id = newId();
  return { id, tryOn: { id, date: new Date().toISOString().slice(0, 10), alterations: [] }, version: 0 };
}

const SEAM = "seam.";

/** The seam to begin with: one that is pinned, else the garment's first. */
function firstSeam(garment: Garment, tryOn: TryOn): Seam {
  return tryOn.alterations?.[0]?.seam ?? garment.seams[0]?.seam ?? "side_seam";
}

function Work({ state, stage }: { state: GarmentState; stage: StageKey }) {
  const { tape } = useSettings();
  const queries = useQueryClient();
  const path = { garment: state.id };
  const facts = useKept<Garment>({
    id: `garment.${state.id}`,
    initial: state.document.garment,
    version: state.version,
    undoable: stage === "look-over",
    store: async (version, garment) => {
      const { wearer_id, archived } = state;
      const body = { version, wearer_id, archived, garment };
      return (
        await answer(api.PUT("/api/v1/garments/{garment}", { params: { path, query: { tape } }, body }))
      ).version;
    },
  });
  const [{ id, tryOn: initial, version }] = useState(() => newest(state));
  const working = useKept<TryOn>({
    id,
    initial,
    version,
    undoable: stage !== "look-over",
    store: async (read, tryOn) => {
      const params = { path: { ...path, try_on: id }, query: { tape } };
      const body = { version: read, try_on: tryOn };
      return (await answer(api.PUT("/api/v1/garments/{garment}/try-ons/{try_on}", { params, body }))).version;
    },
  });
  const garment = facts.value;
  const shown = working.value;
  const [seam, setSeam] = useState<Seam>(() => firstSeam(garment, shown));
  const [question, setQuestion] = useState<string | null>(null);
  const document = useMemo(
    () => ({ ...state.document, garment, try_ons: [shown] }),
    [state.document, garment, shown],
  );
  const { solved, problem, preview } = useSolved(document, tape);
  const lookOver = useLookOver(state.id, garment, tape, stage === "look-over");
  useEffect(
    () => () => {
      void queries.invalidateQueries({ queryKey: ["rail"] });
    },
    [queries],
  );
  const result = solved?.try_ons[0];
  // While something is dragged the strip is painted first; the stand and the ladder follow.
  const later = useDeferredValue(solved);
  const looksOver = stage === "look-over";
  const stand = useStand(state.id, garment);
  const changes = looksOver ? undefined : later?.try_ons[0]?.stand;
  const levels = (looksOver ? later?.levels : later?.try_ons[0]?.levels) ?? later?.levels;
  const hasCards = (result?.cards.length ?? 0) > 0;
  const isClear = hasCards && (result?.checks.every((c) => c.outcome !== "stop") ?? false);
  const shownKept = looksOver ? facts : working;
  const canPick = useCallback((part: Part) => looksOver || Boolean(part.seam), [looksOver]);
  const pick = useCallback(
    (part: Part) => {
      if (looksOver) setQuestion(part.key ?? null);
      else if (part.seam) setSeam(part.seam);
    },
    [looksOver],
  );
  const stale = facts.problem?.stored_garment;
  const staleTryOn = working.problem?.stored;
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
      {staleTryOn && (
        <Conflict
          what="try-on"
          there={pinsInWords(staleTryOn.try_on)}
          here={pinsInWords(shown)}
          onTake={() => {
            working.take({ value: staleTryOn.try_on, version: staleTryOn.version });
          }}
          onKeep={() => {
            working.keep({ value: staleTryOn.try_on, version: staleTryOn.version });
          }}
        />
      )}
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
                    picked={looksOver ? question : SEAM + seam}
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
        {stage === "try-on" && <TryOnStage tryOn={shown} solved={solved} onChange={working.change} />}
        {stage === "lines" && (
          <LinesStage
            garment={state.id}
            tryOn={shown}
            solved={solved}
            problem={problem}
            seam={seam}
            canUndo={working.canUndo}
            canRedo={working.canRedo}
            onUndo={working.undo}
            onRedo={working.redo}
            onChange={working.change}
            onPreview={preview}
          />
        )}
      </div>
    </main>
  );
}

const pinsInWords = (tryOn: TryOn) =>
  (tryOn.alterations ?? [])
    .map((a) => `${a.seam}: ${(a.readings ?? []).map((r) => `${r.amount} at ${r.station}`).join(", ")}`)
    .join("; ");

const factsInWords = (garment: Garment) =>
  `${garment.name}, ${garment.cloth.name}; ${garment.levels
    .map((l) => `${l.level} ${"girth" in l.width ? l.width.girth : `${l.width.laid_flat} flat`}`)
    .join(", ")}`;
