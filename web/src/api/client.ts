import createClient from "openapi-fetch";
import type { components, paths } from "./schema.gen";

type Schemas = components["schemas"];
export type Document = Schemas["Document"];
export type TryOn = Schemas["TryOn"];
export type State = Schemas["State"];
export type Change = Schemas["Change"];
export type ChangeKey = Schemas["ChangeKey"];
export type SeamChange = Schemas["SeamChange"];
export type DartChange = Schemas["DartChange"];
export type ElasticChange = Schemas["ElasticChange"];
export type SolvedChange = Schemas["SolvedChange"];
export type SolvedLine = Schemas["SolvedLine"];
export type Shows = Schemas["Shows"];
export type FindingKey = Schemas["FindingKey"];
export type ManyWords = Schemas["ManyWords"];
export type Stage = Schemas["Stage"];
export type StageLine = Schemas["StageLine"];
export type Block = Schemas["Block"];
export type CardTable = Schemas["Table"];
export type CardDrawing = Schemas["CardDrawing"];
export type WayToMeasure = Schemas["WayToMeasure"];
export type SolvedElastic = Schemas["SolvedElastic"];
export type SolvedMark = Schemas["SolvedMark"];
export type MarkOnEdge = Schemas["MarkOnEdge"];
export type HemFigure = Schemas["HemFigure"];
export type SpacedEdge = Schemas["SpacedEdge"];
export type SolvedArmhole = Schemas["SolvedArmhole"];
export type SolvedGathers = Schemas["SolvedGathers"];
export type Version = Schemas["Version"];
export type Signs = Schemas["Signs"];
export type SignLine = Schemas["SignLine"];
export type CauseLine = Schemas["CauseLine"];
export type LeadLine = Schemas["LeadLine"];
export type Methods = Schemas["Methods"];
export type Method = Schemas["Method"];
export type WantedChange = Schemas["WantedChange"];
export type Reading = Schemas["Reading"];
export type End = Schemas["End"];
export type Solved = Schemas["Solved"];
export type SolvedTryOn = Schemas["SolvedTryOn"];
export type PinResult = Schemas["PinResult"];
export type LevelResult = Schemas["LevelResult"];
export type Check = Schemas["Check"];
export type Card = Schemas["Card"];
export type Figure = Schemas["Figure"];
export type Stand = Schemas["Stand"];
export type StandChanges = Schemas["StandChanges"];
export type Hanging = Schemas["Hanging"];
export type Picture = Schemas["Picture"];
export type Garment = Schemas["Garment"];
export type Cloth = Schemas["Cloth"];
export type Kind = Schemas["Kind"];
export type KindLine = Schemas["KindLine"];
export type LookOver = Schemas["LookOver"];
export type Question = Schemas["Question"];
export type Field = Schemas["Field"];
export type Addition = Schemas["Addition"];
export type Doubt = Schemas["Doubt"];
export type Wearer = Schemas["Wearer"];
export type WearerState = Schemas["WearerState"];
export type WearerPage = Schemas["WearerPage"];
export type MeasurementLine = Schemas["MeasurementLine"];
export type BodyMeasurement = Schemas["BodyMeasurement"];
export type Taken = Schemas["Taken"];
export type PhotoState = Schemas["PhotoState"];
export type Who = Schemas["Who"];
export type SessionLine = Schemas["SessionLine"];
export type Offers = Schemas["Offers"];
export type BroughtIn = Schemas["BroughtIn"];
export type Strip = Schemas["Strip"];
export type StripSide = Schemas["StripSide"];
export type GarmentState = Schemas["GarmentState"];
export type TryOnState = Schemas["TryOnState"];
export type Prefer = Schemas["Prefer"];
export type Apart = Schemas["Apart"];
export type Asking = Schemas["Asking"];
export type Step = Schemas["AskedStep"];
export type WorkStep = Schemas["Step"];
export type Ahead = Schemas["Ahead"];
export type GarmentAhead = Schemas["GarmentAhead"];
export type TaskLine = Schemas["TaskLine"];
export type EveningLine = Schemas["EveningLine"];
export type PieceLine = Schemas["PieceLine"];
export type WayOutLine = Schemas["WayOutLine"];
export type ShelfLine = Schemas["ShelfLine"];
export type Workroom = Schemas["Workroom"];
export type WorkroomState = Schemas["WorkroomState"];
export type Pattern = Schemas["Pattern"];
export type Chart = Schemas["Chart"];
export type ChartTable = Schemas["ChartTable"];
export type Sizes = Schemas["Sizes"];
export type SizeCandidate = Schemas["SizeCandidate"];
export type Pieces = Schemas["Pieces"];
export type PieceSet = Schemas["PieceSet"];
export type FieldAsked = Schemas["FieldAsked"];
export type PieceChip = Schemas["PieceChip"];
export type EdgeName = Schemas["EdgeName"];
export type ClothLies = Schemas["ClothLies"];
export type Taste = Schemas["Taste"];
export type Marked = Schemas["Marked"];
export type CutFromToile = Schemas["CutFromToile"];
export type MarkShown = Schemas["MarkShown"];
export type MarkOffered = Schemas["MarkOffered"];
export type ToileShown = Schemas["ToileShown"];
export type DrawnPiece = Schemas["DrawnPiece"];
export type ReadPieces = Schemas["ReadPieces"];
export type ReadPiece = Schemas["ReadPiece"];
export type ReadEdge = Schemas["ReadEdge"];
export type PieceShown = Schemas["PieceShown"];
export type PieceMay = Schemas["PieceMay"];
export type JoinShown = Schemas["JoinShown"];
export type Wishes = Schemas["Wishes"];
export type Logged = Schemas["Logged"];
export type Did = Schemas["Did"];
export type Correction = Schemas["Correction"];
export type TaskKey = Schemas["TaskKey"];
export type History = Schemas["History"];
export type AsSewn = Schemas["AsSewn"];
export type Proposal = Schemas["Proposal"];
export type Entry = Schemas["Entry"];
export type LessonOn = Schemas["LessonOn"];
export type PinPlace = Schemas["PinPlace"];
export type PinSide = Schemas["PinSide"];
export type HemPlace = Schemas["HemPlace"];
export type HemMark = Schemas["HemMark"];
export type Unrolled = Schemas["Unrolled"];
export type Observation = Schemas["Observation"];
export type MovementTest = Schemas["MovementTest"];
export type GuestState = Schemas["GuestState"];
export type Invited = Schemas["Invited"];
export type Comparison = Schemas["Comparison"];
export type AskedNow = Schemas["AskedNow"];
export type LiveEvent = Schemas["Event"];
export type Level = Schemas["Level"];
export type OnTheRail = Schemas["OnTheRail"];
export type Problem = Schemas["Problem"];
export type Complaint = Schemas["Complaint"];
export type Tape = Schemas["Tape"];
export type GarmentSide = Schemas["GarmentSide"];
export type Seam = Schemas["Seam"];
export type SidePolicy = Schemas["SidePolicy"];
export type Fairing = Schemas["Fairing"];

/** The server wants to know that no form of another site wrote this: they cannot send a header of their own. */
export const fromHere = { "Vemble-Client": "web" };

export const api = createClient<paths>({ baseUrl: "/", headers: fromHere });

/** What a request failed with: the server's own words, or that nothing answered. */
export class ApiFailure extends Error {
  constructor(readonly problem: Problem) {
    super(`${problem.title}. ${problem.detail}`);
  }
}

const unreachable: Problem = {
  type: "unreachable",
  title: "Vemble does not answer",
  status: 0,
  detail: "Check that it is running. What you typed is kept here.",
};

/** The data of a response, or an {@link ApiFailure}. */
export async function answer<T>(
  request: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await request.catch((): never => {
    throw new ApiFailure(unreachable);
  });
  if (response.ok) return data as T;
  throw new ApiFailure(isProblem(error) ? error : { ...unreachable, status: response.status });
}

function isProblem(value: unknown): value is Problem {
  return typeof value === "object" && value !== null && "title" in value && "detail" in value;
}

/** Why something failed, for showing. */
export function problemOf(error: unknown): Problem {
  return error instanceof ApiFailure ? error.problem : unreachable;
}
