export { PRIOR, priorsOf, WEIGHED_AT, type Cause, type Repairs } from './causes';
export { complaints, complaintsLike, saysOf, type Complaint } from './complaints';
export type {
  AnswerEvidence,
  ComplaintEvidence,
  Evidence,
  LookEvidence,
  NamedEvidence,
  RepairEvidence,
  RunEvidence,
  UsualFigures,
} from './evidence';
export { expectedFigures } from './expected';
export { JointWeigher, NEEDLE_SD_PSI } from './likelihood';
export {
  evidenceOfFound,
  evidenceOfRun,
  stillCounts,
  usualOf,
  type JudgedForSuspects,
} from './evidenceOf';
export {
  meaningsOf,
  nextCheck,
  STANDS_OUT,
  type Bought,
  type Meaning,
  type Next,
  type NextOptions,
} from './nextCheck';
export { faultChances, LEAST_SPOKEN_OF, rankingOf, type Ranking, type Suspect } from './ranking';
export {
  RigModel,
  type KeptTable,
  type ModelOptions,
  type Progress,
  type ShownByRun,
} from './rigModel';
export {
  lampFigures,
  numberFigures,
  runFigures,
  unmeasured,
  type LampFigure,
  type NumberFigure,
  type RunFigures,
} from './runFigures';
export { pointsAt, symptoms, type Pointed, type Symptom } from './symptoms';
export { shownBetween } from './interpolated';
export { faultsIn, Weighing, type Weighed, type WeighOptions } from './weigh';
export { sayHowBad, sayNumber, sayOption, whyOf, type Needle, type Why } from './why';
