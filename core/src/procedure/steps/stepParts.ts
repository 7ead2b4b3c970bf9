import type { LookItem, MadeStep, MarkSpec, Proposal } from '../procedure';

const SET_THEN_TAP = 'set it to the needle, then tap';

/** A place on the dial whose passing is timed. */
export const passing = (
  key: string,
  proposal: Proposal,
  pad = 'Needle at {reading}',
): MarkSpec => ({
  key,
  pad,
  hint: 'tap as it passes',
  at: 'passing',
  proposal,
});

/** A place where the needle stands, or an event is seen to happen. */
export const needleAt = (
  key: string,
  pad: string,
  proposal: Proposal,
  hint = SET_THEN_TAP,
  shows?: MarkSpec['shows'],
): MarkSpec => ({ key, pad, hint, at: 'needle', proposal, ...(shows ? { shows } : {}) });

/** The needle passes the next line down while a hold runs. */
export const lineCrossed: MarkSpec = {
  key: 'crossing',
  pad: 'Needle on {reading}',
  hint: 'tap only when it crosses this line',
  at: 'passing',
  proposal: { from: 'last' },
};

/** Where the governor is set to cut out. */
export const governorCutOut: Proposal = {
  from: 'governor',
  field: 'cutOutPsi',
  otherwisePsi: 120,
};

/** A step with what most steps have in common. */
export const step = (
  given: Pick<MadeStep, 'id' | 'title' | 'act'> & Partial<MadeStep>,
): MadeStep => ({
  say: [],
  cautions: [],
  reckon: [],
  windowFigures: [],
  maySkip: true,
  ...given,
});

/** A thing that is either so or not. */
export const yesNo = (
  key: string,
  ask: string,
  good: string,
  bad: string,
  means: string,
  holds = false,
): LookItem => ({
  key,
  ask,
  options: [
    { value: 'yes', title: good, standing: 'good' },
    { value: 'no', title: bad, standing: 'bad', means, ...(holds ? { holds: true } : {}) },
  ],
});

/** What was waited for and never came: each answer says which of it. */
export const never = (
  ask: string,
  ...answers: readonly (readonly [value: string, title: string, means: string])[]
): LookItem => ({
  key: 'never',
  ask,
  options: answers.map(([value, title, means]) => ({
    value,
    title,
    standing: 'bad',
    means,
    holds: true,
  })),
});
