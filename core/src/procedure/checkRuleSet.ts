import type { FieldProblem, RuleSetDraft } from '@keen-bleed/contract';
import { stepMakerById } from './stepMakers';

/**
 * What no single field's schema can say about a rule set. The editor asks before it sends, the server before
 * it keeps.
 *
 * @returns one problem per wrong field, each saying what would be right
 */
export function checkRuleSet({ steps, limits, looks = [] }: RuleSetDraft): FieldProblem[] {
  const problems: FieldProblem[] = [];
  const seen = new Set<string>();
  steps.forEach(({ stepId, need }, at) => {
    const field = `steps.${at}.stepId`;
    if (!stepMakerById(stepId)) problems.push({ field, message: `There is no step "${stepId}".` });
    else if (seen.has(stepId))
      problems.push({ field, message: `“${stepId}” stands twice: once is enough.` });
    if (stepId === 'prepare' && need !== 'must') {
      problems.push({ field: `steps.${at}.need`, message: 'Making it safe cannot be left out.' });
    }
    seen.add(stepId);
  });
  if (steps[0]?.stepId !== 'prepare') {
    problems.push({ field: 'steps', message: 'A run begins with making it safe: put it first.' });
  }
  const fall = steps.findIndex(({ stepId, need }) => stepId === 'pop-out' && need !== 'off');
  const holdAfterFall = steps.findIndex(
    ({ stepId, need }, at) => stepId === 'applied-hold' && need !== 'off' && at > fall,
  );
  const rebuild = steps.findIndex(({ stepId, need }) => stepId === 'rebuild' && need !== 'off');
  if (fall >= 0 && holdAfterFall >= 0 && !(rebuild > fall && rebuild < holdAfterFall)) {
    problems.push({
      field: `steps.${holdAfterFall}.stepId`,
      message: 'A hold after the pop-out has no air: rebuild first, or hold before it.',
    });
  }
  looks.forEach(({ key }, at) => {
    if (looks.findIndex((each) => each.key === key) === at) return;
    problems.push({ field: `looks.${at}.key`, message: 'This look stands in the list twice.' });
  });
  limits.forEach(({ min, max, figure }, at) => {
    if (min === null && max === null) {
      problems.push({
        field: `limits.${at}.max`,
        message: `A limit of ${figure} needs one end at least.`,
      });
    } else if (min !== null && max !== null && min >= max) {
      problems.push({
        field: `limits.${at}.min`,
        message: `The lower end of ${figure} must be below the upper, ${max}.`,
      });
    }
  });
  return problems;
}
