import type { Unit } from '@keen-bleed/contract';
import { hasCompressor } from '../../rig/hasCompressor';
import { hasSpringBrakes, unitsOf } from '../../rig/rigUnderTest';
import { lacking, type DatedLaw } from '../../standards/lawByDate';
import type { LookItem, LookOption, StepMaker } from '../procedure';
import { step } from './stepParts';

/** That a unit has not what its date may ask for, as an answer. */
export const lacks = (
  unit: Unit,
  law: DatedLaw['id'],
  value: string,
  title: string,
): LookOption => {
  const { standing, means } = lacking(unit, law);
  return { value, title, standing, ...(means ? { means } : {}) };
};

const CORRECT = 'The unit says otherwise: correct it in its parts.';

/** What the law asks of each unit by when it was built, and what each has. */
export const byAge: StepMaker = {
  id: 'by-age',
  title: 'Required by its age',
  make: ({ rig }) => {
    const units = unitsOf(rig);
    const items = units.flatMap((unit, at) => {
      const of = units.length > 1 ? `, ${unit.name || unit.kind} ${unit.number}` : '';
      const key = (name: string) => (at === 0 ? name : `${name}-${at}`);
      return itemsOf(unit, units.length > 1).map((item): LookItem => ({
        ...item,
        key: key(item.key),
        ask: `${item.ask}${of}`,
      }));
    });
    return items.length > 0
      ? step({
          id: 'by-age',
          title: 'Required by its age',
          cautions: [
            'Chocked both ways, parked, engine off before anybody looks underneath. Hands off rods and adjusters.',
          ],
          act: { kind: 'look', items },
        })
      : null;
  },
};

function itemsOf(unit: Unit, isCoupled: boolean): LookItem[] {
  const items: LookItem[] = [
    {
      key: 'adjusters',
      ask: 'Adjusters',
      options: [
        { value: 'automatic', title: 'automatic', standing: 'good' },
        lacks(unit, 'automatic-adjusters', 'manual', 'manual'),
        lacks(unit, 'automatic-adjusters', 'mixed', 'some manual'),
      ],
    },
  ];
  if (unit.kind === 'tractor' || (unit.kind === 'truck' && isCoupled)) {
    items.push({
      key: 'antilock-dash-lamp',
      ask: 'Trailer antilock lamp on the dash',
      options: [
        { value: 'on-off', title: 'on, then off', standing: 'good' },
        {
          value: 'stays-on',
          title: 'stays on',
          standing: 'bad',
          means: 'A fault of the trailer’s antilock: its wheels may lock.',
        },
        {
          value: 'never',
          title: 'never lit',
          standing: 'bad',
          means: 'The bulb or its wiring: a fault of the trailer would not be seen.',
        },
        lacks(unit, 'antilock-dash-lamp', 'not-fitted', 'not fitted'),
      ],
    });
  }
  if (hasCompressor(unit.kind) && unit.circuits === 'single') {
    items.push({
      key: 'circuits',
      ask: 'Brake circuits',
      options: [
        lacks(unit, 'dual-circuits', 'single', 'single'),
        { value: 'dual', title: 'dual', standing: 'open', means: CORRECT },
      ],
    });
  }
  if (unit.kind === 'trailer' && !hasSpringBrakes(unit)) {
    items.push({
      key: 'springs',
      ask: 'Spring brakes',
      options: [
        lacks(unit, 'trailer-springs', 'none', 'none'),
        { value: 'fitted', title: 'fitted', standing: 'open', means: CORRECT },
      ],
    });
  }
  return items;
}
