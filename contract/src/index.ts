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
  type ChamberType,
  type Coupling,
  type FigureId,
  type FigureUnit,
  type GaugeRole,
  type FindingStanding,
  type LimitTag,
  type Need,
  type PressureUnit,
  type Role,
  type School,
  type TankRole,
  type UnitKind,
  type Verdict,
} from './choices';
export { check, type Checked } from './check';
export { schemas, type SchemaName } from './schemas';
export { errorStatus, type ErrorBody, type ErrorCode, type FieldProblem } from './errors';
export {
  type ChamberGroup,
  type CreateUnit,
  type EditUnit,
  type Gauge,
  type GaugeCheck,
  type Governor,
  type MakerLimits,
  type Tank,
  type Unit,
  type UnitDraft,
} from './unit';
export {
  type CloseEvent,
  type ExtendEvent,
  type HoldOverEvent,
  type LookEvent,
  type MarkEvent,
  type NoteEvent,
  type ReadyEvent,
  type RetractEvent,
  type RunEvent,
  type SkipEvent,
} from './event';
export { type Figure, type Finding, type LimitUsed, type Outcome } from './outcome';
export { type CoupleRig, type Rig, type UncoupleRig } from './rig';
export {
  type CopyRuleSet,
  type EditRuleSet,
  type Limit,
  type RuleSet,
  type RuleSetDraft,
  type RuleStep,
  type Switches,
} from './ruleSet';
export { RunExportSchema, type AppendEvents, type OpenRun, type RunExport } from './run';
export {
  type CreatePerson,
  type EditPerson,
  type FirstLead,
  type Me,
  type Person,
  type SignIn,
} from './account';
export type { RuleSetList, RunRecord, RunRow, RunRowFigure, YardRow } from './views';

export { gaugeChannels, type GaugeChannel, type SentSample } from './gaugeSet';
