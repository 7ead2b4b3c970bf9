export { CORE_VERSION } from './version';
export { fromPsi, toPsi, KPA_PER_PSI, STANDARD_ATMOSPHERE_PSI } from './units/pressure';
export { ft3FromIn3, in3FromLitres, litresFromIn3 } from './units/volume';
export { figureUnitIn, rounded, sayFigure, sayLevel, sayOdometer, sayPressure } from './units/say';
export { pressuresIn } from './units/pressuresIn';
export { forceLbf, pistonAreaIn2 } from './gas/force';
export { freeAirScfm } from './gas/freeAir';
export { equivalentHoleMm, holeFlowScfm } from './gas/orifice';
export { chokedEmptyingS } from './gas/emptying';
export { chamberVolumeIn3, RATED_CHAMBER_VOLUME_IN3 } from './rig/chamberVolume';
export { brakeTankVolumeIn3, totalTankVolumeIn3 } from './rig/tankVolume';
export { reservoirCheck, type ReservoirCheck } from './rig/reservoirRule';
export { hasCompressor } from './rig/hasCompressor';
export { unitTitle } from './rig/unitTitle';
export { rigKey } from './rig/rigKey';
export { rigTitle } from './rig/rigTitle';
export { couplingOf, hasSpringBrakes, unitsOf, type RigUnderTest } from './rig/rigUnderTest';
export { checkCoupling } from './rig/checkCoupling';
export { checkUnit } from './rig/checkUnit';
export { newUnitDraft, usualGauge } from './rig/newUnit';
export { defaultRuleSetId, ruleSetById, ruleSetFor, ruleSets } from './standards/ruleSets';
export { inService } from './standards/inService';
export { numberedPorts } from './standards/numberedPorts';
export { roadTest } from './standards/roadTest';
export { limitFor } from './standards/limitFor';
export { hasOldStop, missedBy, takenOver, type Missed } from './standards/missedBy';
export { switchInfos, type SwitchInfo } from './standards/switches';
export type {
  HoldAct,
  LookItem,
  LookOption,
  MarkSpec,
  MarksAct,
  Procedure,
  ProcedureUnit,
  ReadyAct,
  Step,
  StopAct,
} from './procedure/procedure';
export { gaugeWord, sayParts } from './procedure/wording';
export { procedureFor } from './procedure/procedureFor';
export { stepMakerById, stepMakers } from './procedure/stepMakers';
export { checkRuleSet } from './procedure/checkRuleSet';
export { windowsOf, type PressureWindow } from './reading/windowsOf';
export { answeredIn, findingsOf, isAnswered, itemsOf, NOT_DONE } from './run/findingsOf';
export { doubtsOf, type Doubt } from './run/doubtsOf';
export {
  runState,
  type About,
  type LiveMark,
  type RunningHold,
  type RunState,
} from './run/runState';
export {
  WATCHED_WITHIN_MS,
  holdNow,
  markAt,
  padNow,
  settlingNow,
  type HoldNow,
  type PadNow,
  type SettlingNow,
} from './run/awaiting';
export { linkedNowPsi, readOver } from './linked/fitted';
export { usualLooks } from './standards/usualLooks';
export { glossary, type Term, type TermGroup } from './words/glossary';
export { verdictWords } from './reading/verdictWords';
export { ladderMarks } from './run/ladderMarks';
export {
  fittedRecordOf,
  lineRecordOf,
  partListOf,
  partById,
  partRecordOf,
  partTitle,
  recordsThatHold,
  unlookedParts,
  withLine,
  withPart,
  type ListedPart,
} from './rig/partList';
export type {
  LineCircuit,
  PartPlace,
  PlumbedLine,
  PlumbedPart,
  Plumbing,
  PlumbingProblem,
  PortAt,
} from './rig/plumbing/plumbing';
export { plumbingOf } from './rig/plumbing/plumbingOf';
export { portsOf, portTitle, type Port } from './rig/plumbing/ports';
export { variantsOf, type Variant } from './rig/plumbing/variants';
export { admit } from './run/admit';
export { isOvertaken } from './run/runLog';
export { nextDue, SOON_DAYS, type Due } from './procedure/nextDue';
export { sayStep } from './procedure/sayStep';
export {
  halfDivisionPsi,
  lineAbovePsi,
  lineBelowPsi,
  nearestLinePsi,
  nearestReadingPsi,
  nudgedPsi,
} from './gauge/graduation';
export { leakRate, type HoldMark, type LeakRate } from './leak/leakRate';
export { leakEstimate, type LeakEstimate, type QuietEnd } from './leak/leakEstimate';
export { judge, judgeBy, SURE, type Judgement } from './reading/judge';
export type { FigureContext } from './reading/figureContext';
export { figuresOf } from './reading/figuresOf';
export { drift, type Drift } from './reading/drift';
export { figureTitles, sayChance, sayFigureLine, sayLimit, sayValue } from './reading/figureWords';
export { outcomeOf } from './reading/outcomeOf';
export { decisiveFigure, isOpenAsRead } from './reading/worst';
export { sayHeadNumber, sayOtherView } from './reading/twoViews';
export { headVerdict } from './reading/figureParts';
export { headedBy } from './standards/switches';
export { openFailures, type FailureClosing, type JudgedRun } from './failures/openFailures';
export { sayFailure } from './failures/sayFailure';
export { withGaugeCheck } from './gauge/gaugeCheck';
export { readingUncertaintyPsi } from './gauge/uncertainty';
export { markRows, type MarkRow } from './reading/markRows';
export { caughtMark, type CaughtMark } from './linked/caughtMark';
export { withSample, type GaugeSample } from './linked/sampleLog';
export {
  clockAnswers,
  correctedMs,
  isTimeDoubted,
  isTimeUnsure,
  unsureLanes,
} from './facts/factTimes';
export { inOrder } from './facts/factOrder';
export { isCriticalFailure, isCriticalStep } from './repair/critical';
export { knownOf, mismatches, sayPartNumber, wantsOf, type Want } from './repair/match';
export { hasWorkedOn, isAfterWork, provesItsSteps } from './repair/afterWork';
export { retestRun, type RetestRun } from './repair/retestRun';
export { retestOfStep, retestsOf, type Retest, type RetestCheck } from './repair/retests';
export { retestOutcome, sayReading, shortOf, type RetestOutcome } from './repair/retestOutcome';
export { sayJobFact, sayPartData, type ToldFact } from './repair/story';
export { boardOf, holdsOf, type JobBoard, type JobLesson } from './repair/board';
export { lessonsOf, taught, type TaughtJob } from './repair/lessons';
export type { JobState, MeasureTaken, Owed } from './repair/jobState';
export { releaseBlocks, type AroundJob } from './repair/release';
export { howToOf, workDangers, type HowTo, type WorkDanger } from './repair/workDangers';
export { chamberAt, type ChamberAt } from './rig/chamberAt';
export { measureWords, repairWords, stations, stationWords, type Station } from './repair/words';
export { JOB_VERSION, jobKind } from './log/kinds/job/jobKind';
export { stepOfFailure } from './procedure/stepOfFailure';
export { FoldedLog, MOST_FACTS, type LogProblem } from './log/foldedLog';
export type { LogKind, LogState, LogSummary } from './log/logKind';
export { anyLogKind, logKind } from './log/logKinds';
export type { NewFact } from './facts/newFact';
export { standing } from './facts/standing';
export { isReadable, readable } from './facts/readable';
export { upToDate, type OldLog } from './log/upToDate';
export { outcomeOfRun, RUN_VERSION, runKind } from './log/kinds/run/runKind';
export { runMade } from './log/kinds/run/runMade';
export { checkAsked } from './log/kinds/run/checkAsked';
export { stateOfRun } from './run/stateOfRun';
export { RunWalk, type Did, type Hands } from './log/kinds/run/runWalk';
export { entryTitles, entryWords, sayEntry, seenWords } from './log/kinds/visit/sayEntry';
export { visitRows, type VisitRow } from './log/kinds/visit/visitRows';
export {
  partOfEntry,
  photosOf,
  VISIT_VERSION,
  visitKind,
  type VisitEntry,
  type VisitState,
} from './log/kinds/visit/visitKind';
export { partsOf, type Part, type PartRole } from './rig/partsOf';
export { unitsOfHeader } from './log/unitsOfHeader';
export { CLOCK_SAID_FROM_MS, sayClockAhead } from './facts/sayClock';
export {
  LADDER_MARGIN,
  ladderScale,
  spreadApart,
  type LadderLine,
  type LadderScale,
} from './ladder/ladderScale';
