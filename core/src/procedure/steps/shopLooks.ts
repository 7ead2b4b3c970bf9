import type { LookItem, StepMaker } from '../procedure';
import { step } from './stepParts';

/** What a shop looks at on the same round, beside the brakes; its own list, in its own words. */
export const shopLooks: StepMaker = {
  id: 'shop-looks',
  title: 'The shop’s own list',
  make: ({ ruleSet }) => {
    const looks = ruleSet.looks ?? [];
    if (looks.length === 0) return null;
    return step({
      id: 'shop-looks',
      title: 'The shop’s own list',
      act: {
        kind: 'look',
        items: looks.map(({ key, ask, usual }): LookItem => ({
          key,
          ask: usual ? `${ask}: ${usual}` : ask,
          options: [
            { value: 'good', title: 'good', standing: 'good' },
            { value: 'bad', title: 'not right', standing: 'bad' },
            { value: 'not-fitted', title: 'not fitted', standing: 'noted' },
          ],
        })),
      },
    });
  },
};
