export type { CloseFailure } from './failure';
export {
  chamberTypes,
  couplings,
  figureIds,
  figureUnits,
  gaugeRoles,
  limitTags,
  pressureUnits,
  roles,
  tankRoles,
  unitKinds,
  verdicts,
  type AdjusterKind,
  type ChamberStroke,
  type ChamberType,
  type Coupling,
  type FigureId,
  type FigureUnit,
  type GaugeRole,
  type FindingStanding,
  type SeenStanding,
  type LimitTag,
  type Need,
  type PressureUnit,
  type Role,
  type School,
  type TankRole,
  type UnitKind,
  type Verdict,
  drainedThings,
  heldNeedles,
  heldStates,
  jointMends,
  jointSides,
  leakGrades,
  MOST_DRAINED_ML,
  sideFindings,
  type DrainedThing,
  type HeldNeedle,
  type HeldState,
  type JointMend,
  type JointSide,
  type LeakGrade,
  type SideFinding,
} from './choices';
export {
  BlocksSchema,
  JobRowsSchema,
  DrainRowsSchema,
  LessonsSchema,
  type DrainRows,
  RigsSchema,
  RuleSetListSchema,
  UnitsSchema,
  YardRowsSchema,
  type JobRow,
  type Lessons,
} from './answers';
export { ALIVE_EVERY_MS, ALIVE_WITHIN_MS } from './streamTimes';
export { check, type Checked } from './check';
export { schemas, type SchemaName } from './schemas';
export { errorStatus, type ErrorBody, type ErrorCode, type FieldProblem } from './errors';
export {
  UnitSchema,
  type ChamberGroup,
  type CreateUnit,
  type EditUnit,
  type Gauge,
  type GaugeCheck,
  type AirDetails,
  type Governor,
  type MakerLimits,
  type Tank,
  type Unit,
  type UnitDraft,
} from './unit';
export { type FactStamp } from './log/fact';
export { logKindNames, type LogHeader, type LogKindName, type Subject } from './log/header';
export {
  FoundAtPartsSchema,
  type FoundAtParts,
  LogRecordSchema,
  LogRowsSchema,
  PhotoKeptSchema,
  RunRowsSchema,
} from './log/answers';
export { HeldLogsSchema, HeldSchema } from './log/fact';
export { type ChainStanding, type ExportedChain } from './log/chain';
export { type AnyFact, type AnyHeader, type LogShapes } from './log/kinds';
export { type AppendFacts, type CompareHeld, type Held, type HeldLogs } from './log/types';
export {
  type ClockFact,
  type CloseFact,
  type ExtendFact,
  type HoldOverFact,
  type LookFact,
  type MarkFact,
  type AboutFact,
  type NoteFact,
  type TakeOverFact,
  type ReadyFact,
  type RetractFact,
  type RunFact,
  type SkipFact,
  type StopFact,
  type StopMeasured,
} from './log/run/fact';
export {
  type HoldAct,
  type LookAct,
  type LookItem,
  type LookOption,
  type MarkSpec,
  type MarksAct,
  type Proposal,
  type ReadyAct,
  type Reckoning,
  type Step,
  type StopAct,
} from './log/run/step';
export { RunExportSchema, type RunExport, type RunHeader, type RunMade } from './log/run/header';
export {
  lineColours,
  partStandings,
  type LineRecord,
  type PartRecord,
  type PartStanding,
} from './part';
export {
  type CheckFact,
  type ComplaintFact,
  type NamedFact,
  type RankedFact,
  type LineFact,
  type PartFact,
  type SeenFact,
  type VisitFact,
  type VisitNoteFact,
} from './log/visit/fact';
export {
  GradesTaughtSchema,
  type AsideFact,
  type GradesTaught,
  type MendedFact,
  type NeedleHeldFact,
  type WaterFound,
  type WeatherFact,
} from './log/visit/huntFacts';
export {
  VisitExportSchema,
  type VisitExport,
  type VisitHeader,
  type VisitMade,
} from './log/visit/header';
export {
  measureKinds,
  repairs,
  type ChosenFact,
  type FittedFact,
  type JobFact,
  type JobReading,
  type MeasureFact,
  type MeasureKind,
  type PartData,
  type ProvenFact,
  type RefusedFact,
  type ReleasedFact,
  type Repair,
  type RetestedFact,
  type WaitingFact,
} from './log/job/fact';
export { type JobFailure, type JobHeader, type JobMade } from './log/job/header';
export { type Figure, type Finding, type LimitUsed, type Outcome } from './outcome';
export {
  RigSchema,
  SuspectTableSchema,
  type AskTable,
  type CoupleRig,
  type Rig,
  type SuspectTable,
  type UncoupleRig,
} from './rig';
export {
  RuleSetSchema,
  type CopyRuleSet,
  type EditRuleSet,
  type Limit,
  type RuleSet,
  type RuleSetDraft,
  type RuleStep,
  type ShopLook,
  type Switches,
} from './ruleSet';
export {
  type CreatePerson,
  type EditPerson,
  type EditShop,
  type Senses,
  SensesSchema,
  type FirstLead,
  type Me,
  type Person,
  type SignIn,
  DeviceSessionsSchema,
  FactorOfferSchema,
  MeSchema,
  PeopleSchema,
  PersonSchema,
  SetUpSchema,
  SpareCodesSchema,
  type DeviceSession,
  type FactorOffer,
  type SpareCodes,
} from './account';
export {
  AuditPageSchema,
  auditedActs,
  type AuditedAct,
  type AuditPage,
  type AuditRow,
} from './audit';
export type {
  HeldFact,
  LogRecord,
  LogRow,
  RuleSetList,
  RunRow,
  RunRowFigure,
  OpenFailure,
  YardRow,
} from './views';

export { gaugeChannels, type GaugeChannel, type SentSample } from './gaugeSet';
export {
  PedalStandingSchema,
  type CallPedal,
  type HeardCall,
  type PedalCall,
  type PedalStanding,
} from './pedalCall';
export type { RouteTypes } from './routeTypes';
