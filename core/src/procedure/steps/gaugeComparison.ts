import { hasCompressor } from '../../rig/hasCompressor';
import { sayPressure } from '../../units/say';
import type { LookItem, StepMaker } from '../procedure';
import { step } from './stepParts';

/** A dash gauge may be off by this share of cut-out [std: 49 CFR 571.121 S5.1.4, value from memory]. */
const ALLOWED_SHARE = 0.07;

/** Each dash needle beside a master gauge, with the tanks full: owed once a gauge was changed. */
export const gaugeComparison: StepMaker = {
  id: 'gauge-comparison',
  title: 'Dash against master gauge',
  make: ({ rig: { unit } }) => {
    if (!hasCompressor(unit.kind)) return null;
    const allowed = sayPressure(
      Math.round(ALLOWED_SHARE * (unit.governor?.cutOutPsi ?? 120)),
      unit.gauge.unit,
    );
    const beside = (key: string, ask: string): LookItem => ({
      key,
      ask,
      options: [
        { value: 'within', title: `within ${allowed}`, standing: 'good' },
        {
          value: 'outside',
          title: 'further off',
          standing: 'bad',
          means: 'Do not read this gauge: change it.',
        },
      ],
    });
    return step({
      id: 'gauge-comparison',
      title: 'Dash against master gauge',
      say: ['Tee a master gauge into each service tank in turn. Read both once they stand still.'],
      cautions: ['Empty the tank before its fitting is opened. Chock both ways.'],
      act: {
        kind: 'look',
        items:
          unit.circuits === 'dual'
            ? [
                beside('primary', '[primary] needle against master'),
                beside('secondary', '[secondary] needle against master'),
              ]
            : [beside('primary', 'Dash needle against master')],
      },
    });
  },
};
