export { actsAt, checksOfStep, failsAt } from './actsAt';
export { applicationsOf, DOWN_TO_PSI, PRESSED_PSI, type Applications } from './applications';
export { checksOf } from './catalogue';
export {
  PERFECT_SENSES,
  USUAL_SENSES,
  type AnswerShape,
  type Check,
  type CheckAct,
  type CheckAnswer,
  type RigState,
  type RigStateId,
  type Senses,
} from './check';
export { bring } from './bring';
export { explainPart, type Explained, type ExplainedStep } from './explain';
export { gradeTitles } from './grades';
export { doCheck, hasFault, observed, type Chance, type Doer, type Has } from './observe';
export { checkedAt, checksOfRetest, crackOf, judgeAnswer, type CheckedAt } from './retestChecks';
export { retestByChecks, type CheckMade, type ChecksCameTo } from './retestByChecks';
export { STATES } from './states';
export { figuresOfCheck, twinChecks, valvesOf, type Valve } from './valves';
export { apart, doAll, TELLS } from './tells';
