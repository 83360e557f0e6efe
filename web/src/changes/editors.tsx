import type { ComponentType, ReactNode } from "react";
import type { Complaint, Garment, Shows, SolvedLine, TryOn } from "../api/client";
import type { InputOf, Kind } from "../document/changes";
import { armhole } from "./armhole/editor";
import { dart } from "./dart/editor";
import { elastic } from "./elastic/editor";
import { gathers } from "./gathers/editor";
import { hem } from "./hem/editor";
import { seam } from "./seam/editor";
import { spacing } from "./spacing/editor";
import { trunk } from "./trunk/editor";

/** What a change is edited with. */
export interface Editing<K extends Kind> {
  garment: Garment;
  /** What it is part of: what was read on the body stands there. */
  tryOn: TryOn;
  onTryOn: (tryOn: TryOn) => void;
  input: InputOf<K>;
  /** What follows from it; nothing while it was never solved. */
  shows: ShowsOf<K> | null;
  /** What is wrong with one of its fields. */
  complaint: (field: string) => Complaint | undefined;
  onChange: (change: Partial<InputOf<K>>) => void;
  onRemove: () => void;
  /** What follows a dragging hand; nothing where nothing can be dragged. */
  dragging?: Dragging;
}

/** What follows a dragging hand. */
export interface Dragging {
  /** The finest mark of the tape, in nm: what one nudge moves, and what a drag snaps to. */
  mark: number;
  /** A length at a mark, as a document holds it. */
  onTape: (nm: number) => string;
  /** The try-on as it would be; and, once the hand lets go, as it is. */
  set: (tryOn: TryOn, done: boolean) => void;
  /** What was dragged goes back to where it was. */
  onLetGo: () => void;
}

/** What follows from a kind of change. */
export type ShowsOf<K extends Kind> = K extends Kind ? Extract<Shows, Record<K, unknown>>[K] : never;

/** What a kind of change owes to the screen. */
export interface Editor<K extends Kind> {
  /** Its settings, below its pins or by themselves. */
  Settings: ComponentType<Editing<K>>;
  /** What the strip's signs mean. */
  legend: (line: SolvedLine) => ReactNode;
  /** Its pins: how one says where the first is measured, and what from while nothing was solved yet. Nothing where it has none. */
  pins: { along: string; from: string } | null;
  /** Where somebody drags the upper end of its line to. */
  withEnd: (input: InputOf<K>, station: string) => Partial<InputOf<K>> | null;
  /** Fields whose faults are shown beside them. */
  ownFaults: RegExp;
}

/** Every kind of change. */
const EDITORS: { [K in Kind]: Editor<K> } = { seam, dart, elastic, armhole, hem, spacing, trunk, gathers };

/** What a kind is edited with; what belongs to it comes from its own change. */
export const editorOf = (kind: Kind) => EDITORS[kind] as unknown as Editor<Kind>;
