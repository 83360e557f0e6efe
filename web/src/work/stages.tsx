import type { ComponentType } from "react";
import type {
  ChangeKey,
  Document,
  Garment,
  GarmentState,
  LeadLine,
  LookOver,
  Problem,
  Solved,
  Stage,
  TryOn,
} from "../api/client";
import type { Kept } from "../document/useKept";
import type { OneTryOn } from "../document/useTryOn";
import type { WhatIf } from "../document/useWhatIf";
import { LinesStage } from "../garment/LinesStage";
import { LookOverStage } from "../garment/LookOverStage";
import { PaperStage } from "../paper/PaperStage";
import { FromToile } from "../paper/FromToile";
import { PlanStage } from "../plan/PlanStage";
import { RecordStage } from "../plan/RecordStage";
import { SewStage } from "../plan/SewStage";
import type { KeptWishes } from "../plan/useWishes";
import { TryOnStage } from "../tryon/TryOnStage";

/** What a stage works with. */
export interface AtWork {
  state: GarmentState;
  /** The garment with its history, as it is shown now. */
  document: Document;
  facts: Kept<Garment>;
  wishes: KeptWishes;
  one: OneTryOn;
  all: OneTryOn[];
  working: Kept<TryOn>;
  whatIf: WhatIf;
  solved: Solved | null;
  problem: Problem | null;
  lookOver: { value: LookOver | null; problem: Problem | null };
  question: string | null;
  onQuestion: (key: string) => void;
  change: ChangeKey;
  onPickChange: (key: ChangeKey) => void;
  onPreview: (tryOn: TryOn) => void;
  onLetGo: () => void;
  onOpen: (id: string) => void;
  onNew: (tryOn: OneTryOn) => void;
  onRemove: (id: string) => void;
  /** Opens the change that a sign leads to, to try. */
  onLead: (lead: LeadLine) => void;
}

/** Where a stage is found, and what is done there. Which there are, and what is settled, is the core's to say. */
export const STAGES: { [S in Stage]?: { path: string; Work: ComponentType<AtWork> } } = {
  look_over: {
    path: "look-over",
    Work: ({ state, facts, wishes, lookOver, question, onQuestion }) => (
      <FromToile id={state.id} isToile={facts.value.toile ?? false} wishes={wishes}>
        <LookOverStage
          id={state.id}
          garment={facts.value}
          lookOver={lookOver.value}
          problem={lookOver.problem}
          picked={question}
          onPick={onQuestion}
          onChange={facts.change}
        />
      </FromToile>
    ),
  },
  try_on: {
    path: "try-on",
    Work: ({ document, one, all, working, solved, onOpen, onNew, onRemove, onLead }) => (
      <TryOnStage
        garment={document}
        one={one}
        all={all}
        kept={working}
        solved={solved}
        onOpen={onOpen}
        onNew={onNew}
        onRemove={onRemove}
        onLead={onLead}
      />
    ),
  },
  lines: {
    path: "lines",
    Work: ({ state, document, solved, problem, change, onPickChange, whatIf, onPreview, onLetGo }) => (
      <LinesStage
        id={state.id}
        garment={document}
        solved={solved}
        problem={problem}
        picked={change}
        onPick={onPickChange}
        whatIf={whatIf}
        onPreview={onPreview}
        onLetGo={onLetGo}
      />
    ),
  },
  paper: {
    path: "paper",
    Work: ({ state, wishes, facts, working }) => (
      <PaperStage
        state={state}
        wishes={wishes}
        facts={facts}
        tryOn={working.value}
        isStored={working.isStored}
      />
    ),
  },
  plan: {
    path: "plan",
    Work: ({ state, wishes }) => <PlanStage state={state} wishes={wishes} />,
  },
  sew: {
    path: "sew",
    Work: ({ state, working }) => <SewStage state={state} working={working} />,
  },
  record: {
    path: "record",
    Work: ({ state, onPickChange }) => <RecordStage state={state} onPick={onPickChange} />,
  },
};

/** The stage at a path. */
export const stageAt = (path: string | undefined) =>
  (Object.keys(STAGES) as Stage[]).find((stage) => STAGES[stage]?.path === path);
