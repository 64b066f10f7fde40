import type { components } from "../../types/schema";

type Schemas = components["schemas"];
export type Project = Omit<Schemas["ProjectOut"], "sheet"> & { sheet: Sheet };
export type ProjectList = Schemas["ProjectList"];
export type ProjectCard = Schemas["ProjectCard"];
export type StartList = Schemas["StartList"];
export type Comparison = Schemas["ComparisonOut"];
export type Workshop = Schemas["WorkshopOut"];
export type Tool = Schemas["ToolOut"];
export type LookedProject = Schemas["LookOut"];
export type Solids = Schemas["SolidsOut"];
/** The sheet; while a change is looked at, with the card that is open. */
export type Sheet = Schemas["SheetOut"] & { card?: Part | null };
export type View = Schemas["ViewOut"];
export type Dimension = Schemas["DimensionOut"];
export type Figure = Schemas["Figure"];
export type Control = Schemas["ControlOut"];
export type Size = Schemas["SizeOut"];
export type PartBrief = Schemas["PartBrief"];
export type Part = Schemas["PartOut"];
export type Rung = Schemas["RungOut"];
export type Finding = Schemas["FindingLine"];
export type Closing = Schemas["ClosingLine"];
export type Problem = Schemas["Problem"];
export type Grip = Schemas["GripOut"];
export type Mark = Schemas["Mark"];
export type Shape = Schemas["Shape"];
export type Act =
  | Schemas["TypeIn"]
  | Schemas["Choose"]
  | Schemas["Nudge"]
  | Schemas["Give"]
  | Schemas["Free"]
  | Schemas["Drag"]
  | Schemas["Fit"]
  | Schemas["Rescale"];
export type Rescale = Required<Schemas["Rescale"]>;
export type Touched = Schemas["Touched"];
export type Face = Schemas["FaceOut"];
export type Faces = Schemas["FacesOut"];
export type Point = [number, number];
export type Boards = Schemas["BoardsOut"];
export type Plan = Schemas["PlanOut"];
export type PlanBoard = Schemas["PlanBoardOut"];
export type PiecePlace = Schemas["PiecePlaceOut"];
export type Rack = Schemas["RackOut"];
export type RackBoard = Schemas["RackBoardOut"];
export type Prices = Schemas["PricesOut"];
export type BuyLine = Schemas["BuyLineOut"];
export type Steps = Schemas["StepsOut"];
export type StepBrief = Schemas["StepBrief"];
export type Step = Schemas["StepOut"];
export type Out = Schemas["OutOut"];
export type SawTest = Schemas["SawTest"];
export type SchoolChoice = Schemas["SchoolOut"];
export type MarkLine = Schemas["EdgeOut"];
export type Bench = Schemas["BenchOut"];
export type BenchTask = Schemas["TaskOut"];
export type BenchStep = Schemas["BenchStepOut"];
export type BenchPiece = Schemas["BenchPieceOut"];
export type Check = Schemas["CheckOut"];
export type Band = Schemas["BandOut"];
export type Outcome = Schemas["OutcomeOut"];
export type Ruler = Schemas["RulerOut"];
export type RecordIn = Required<Schemas["NewRecord"]>;
export type Share = Schemas["ShareOut"];
export type Code = Schemas["CodeOut"];
export type Instrument = Schemas["InstrumentOut"];
export type Drill = Schemas["DrillOut"];
export type Practice = Schemas["PracticeOut"];
export type Fit = Schemas["FitOut"];
export type Offered = Schemas["OfferedRecord"];
export type Reading = Schemas["ReadingOut"];
export type FitPicture = Schemas["PictureOut"];
export type FitLine = Schemas["LineOut"];
export type GapJoint = Schemas["GapJointOut"];
export type MadePart = Schemas["MadePartOut"];
export type MadeRow = Schemas["MadeRowOut"];
export type FitChangeLine = Schemas["ChangeOut"];
export type WayOut = Schemas["WayOutOut"];
export type Joining = Schemas["JoiningOut"];
export type PassOpening = Schemas["OpeningOut"];
export type Finish = Schemas["FinishOut"];
export type HeldJoint = Schemas["HeldJointOut"];
export type Day = Schemas["DayOut"];
export type DayTask = Schemas["DayTaskOut"];
export type WhyLine = Schemas["WhyOut"];
export type Group = Schemas["GroupOut"];
export type Painted = Schemas["PaintedOut"];
export type Tables = Schemas["TablesOut"];
export type Table = Schemas["TableOut"];
export type TableRow = Schemas["RowOut"];
export type Log = Schemas["LogOut"];
export type LogDay = Schemas["DayTold"];
export type LogStretch = Schemas["StretchOut"];
export type LogFile = Schemas["FileOut"];
export type ReminderNote = Schemas["ReminderOut"];
export type FileIn = Schemas["FileIn"];
export type FileRead = Schemas["FileRead"];
export type ReadingsRead = Schemas["ReadingsRead"];
export type PlanRead = Schemas["PlanRead"];
export type PlanChecked = Schemas["PlanChecked"];
export type Mouldings = Schemas["MouldingsOut"];
export type Moulding = Schemas["MouldingOut"];
export type Content = Schemas["ContentOut"];
export type Frames = Schemas["FramesOut"];
