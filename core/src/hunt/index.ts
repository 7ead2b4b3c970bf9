export { budgetOf, CLOSED_UNDER, WORTH_FINDING_SCFM } from './budget';
export type { Budget, BudgetLine, BudgetOptions, Hold, MayLeak, Wetted } from './budget';
export { GRADE_SCFM, gradesLearnt, isLeakGrade, leakGrades } from './grades';
export type { BeforeAfter, GradesLearnt, LeakGrade } from './grades';
export { beforeAfter, huntOf, type HuntEvent } from './huntOf';
export { heardOf, type Ears, type Heard } from './heard';
export { losesAir } from './losesAir';
export { HELD_IN, jointsOf, passes, type Joint, type Pass } from './joints';
export { scfmOfFall, seenTable, type SeenTable, type Watched } from './seenTable';
