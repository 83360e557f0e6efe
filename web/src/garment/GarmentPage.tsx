import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Skeleton } from "antd";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { Link, Navigate, useParams } from "react-router";
import { v7 as newId } from "uuid";
import {
  answer,
  api,
  problemOf,
  type GarmentState,
  type Problem,
  type Seam,
  type TryOn,
  type TryOnState,
} from "../api/client";
import { EaseLadder } from "../drawing/EaseLadder";
import { STAGES, StageTape, type StageKey } from "../drawing/StageTape";
import { StandView } from "../drawing/StandView";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import { LinesStage } from "./LinesStage";
import { LookOverStage } from "./LookOverStage";
import { TryOnStage } from "./TryOnStage";
import { useSolved } from "./useSolved";
import { useTryOn } from "./useTryOn";
import "./garment.css";

/** A garment, the main place: its stages across the top, the stand on the left, the work of the stage on the right. */
export default function GarmentPage() {
  const { garment = "", stage = "lines" } = useParams();
  const state = useQuery({
    queryKey: ["garment", garment],
    queryFn: () => answer(api.GET("/api/v1/garments/{garment}", { params: { path: { garment } } })),
    // While it is worked on, this page is ahead of the server.
    staleTime: Infinity,
    gcTime: 0,
  });
  const known = STAGES.find((s) => s.key === stage);
  if (!known) return <Navigate to={`/garments/${garment}/lines`} replace />;
  if (state.isPending) {
    return (
      <main className="garment">
        <Skeleton active paragraph={{ rows: 10 }} />
      </main>
    );
  }
  if (state.isError) return <Trouble problem={problemOf(state.error)} retry={() => void state.refetch()} />;
  return <Work key={state.dataUpdatedAt} state={state.data} stage={known.key} />;
}

/** The newest try-on, or a new one that is stored with its first change. */
function newest(state: GarmentState): { id: string; tryOn: TryOn; version: number } {
  const tryOns = state.document.try_ons ?? [];
  const last = tryOns.at(-1);
  if (last?.id) return { id: last.id, tryOn: last, version: state.try_on_versions.at(-1) ?? 0 };
  const id = newId();
  return { id, tryOn: { id, date: new Date().toISOString().slice(0, 10), alterations: [] }, version: 0 };
}

function Work({ state, stage }: { state: GarmentState; stage: StageKey }) {
  const { tape } = useSettings();
  const [{ id, tryOn: initial, version }] = useState(() => newest(state));
  const working = useTryOn(state.id, id, initial, version, tape);
  const [seam, setSeam] = useState<Seam>("outseam");
  const shown = working.tryOn;
  const document = useMemo(() => ({ ...state.document, try_ons: [shown] }), [state.document, shown]);
  const { solved, problem, preview } = useSolved(document, tape);
  const queries = useQueryClient();
  useEffect(
    () => () => {
      void queries.invalidateQueries({ queryKey: ["rail"] });
    },
    [queries],
  );
  const result = solved?.try_ons[0];
  // While something is dragged the strip is painted first; the stand and the ladder follow.
  const later = useDeferredValue(solved);
  const stand = later?.try_ons[0]?.stand ?? later?.stand;
  const levels = later?.try_ons[0]?.levels ?? later?.levels;
  const { garment } = state.document;
  const { change } = working;
  const hasCards = (result?.cards.length ?? 0) > 0;
  const isClear = hasCards && (result?.checks.every((c) => c.outcome !== "stop") ?? false);
  return (
    <main className="garment">
      <div className="garment-head">
        <h1>{garment.name}</h1>
        <p className="quiet">
          {garment.wearer.name} · {garment.cloth.name}
        </p>
        <Saved isStored={working.isStored} problem={working.problem} />
      </div>
      <StageTape garment={state.id} hasCards={hasCards} isClear={isClear} />
      {working.problem?.stored && (
        <Conflict
          theirs={working.problem.stored}
          mine={working.tryOn}
          onTake={working.take}
          onKeep={working.keep}
        />
      )}
      <div className="garment-work">
        <aside className="garment-stand" aria-label="The stand">
          {levels ? (
            <>
              <section className="sheet">
                {stand && (
                  <StandView
                    stand={stand}
                    levels={levels}
                    picked={stage === "lines" ? seam : null}
                    onPick={setSeam}
                  />
                )}
              </section>
              <section className="sheet" aria-label="Ease">
                <h2>What it will measure</h2>
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
        {stage === "look-over" && <LookOverStage document={state.document} solved={solved} />}
        {stage === "try-on" && <TryOnStage tryOn={working.tryOn} solved={solved} onChange={change} />}
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
            onChange={change}
            onPreview={preview}
          />
        )}
      </div>
    </main>
  );
}

/** Whether what is shown is stored, and if not, why. */
function Saved({ isStored, problem }: { isStored: boolean; problem: Problem | null }) {
  const words = () => {
    if (problem?.status === 422 || problem?.status === 400) return "Kept here; stored once it can be read";
    if (problem?.status === 401) return "Kept here; sign in again to store it";
    if (problem) return `Kept here, not stored yet: ${problem.title.toLowerCase()}`;
    return isStored ? "Stored" : "Storing…";
  };
  return (
    <p className={problem ? "saved trouble-words" : "saved quiet"} role="status" data-stored={isStored}>
      {words()} {problem?.status === 401 && <Link to="/">Sign in</Link>}
    </p>
  );
}

function Conflict({
  theirs,
  mine,
  onTake,
  onKeep,
}: {
  theirs: TryOnState;
  mine: TryOn;
  onTake: (theirs: TryOnState) => void;
  onKeep: (theirs: TryOnState) => void;
}) {
  const pins = (tryOn: TryOn) =>
    (tryOn.alterations ?? [])
      .map((a) => `${a.seam}: ${(a.readings ?? []).map((r) => `${r.amount} at ${r.station}`).join(", ")}`)
      .join("; ");
  return (
    <Alert
      className="conflict"
      type="warning"
      showIcon
      title="This try-on was changed somewhere else"
      description={
        <>
          <p>
            <strong>There:</strong> {pins(theirs.try_on)}
          </p>
          <p>
            <strong>Here:</strong> {pins(mine)}
          </p>
          <Button
            onClick={() => {
              onTake(theirs);
            }}
          >
            Go on with the one there
          </Button>{" "}
          <Button
            type="primary"
            onClick={() => {
              onKeep(theirs);
            }}
          >
            Go on with the one here
          </Button>
        </>
      }
    />
  );
}
