import { hasCompressor } from '../../rig/hasCompressor';
import { hasSpringBrakes, type RigUnderTest } from '../../rig/rigUnderTest';
import type { LookItem, StepContext, StepMaker } from '../procedure';
import { needleAt, step, yesNo } from './stepParts';

const tows = ({ towed }: RigUnderTest) => towed.length > 0;
const hasOldTrailer = ({ towed }: RigUnderTest) =>
  towed.some((unit) => unit.kind === 'trailer' && !hasSpringBrakes(unit));

/** Charging a towed unit alone before its hold. */
export const charge: StepMaker = {
  id: 'charge',
  title: 'Charge',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? null
      : step({
          id: 'charge',
          title: 'Charge',
          say: ['Charge until the needle stops.', 'Then close the shop air cock.'],
          cautions: ['Eye protection at couplers and drains.'],
          act: {
            kind: 'marks',
            marks: [needleAt('charged', 'Charged to {reading}', { from: 'level', psi: 120 })],
          },
          maySkip: false,
        }),
};

/** Couplers the right way round, seals, cocks, and whether the trailer is charged. */
export const couplers: StepMaker = {
  id: 'couplers',
  title: 'Couplers',
  make: ({ rig, ruleSet }) => {
    if (!tows(rig)) return null;
    const crossed = hasOldTrailer(rig)
      ? 'Crossed, an old trailer without springs can be driven off with no brakes at all: swap them.'
      : 'Crossed, the spring brakes do not come off: swap them.';
    const items: LookItem[] = [
      {
        key: 'way',
        ask: 'Couplers the right way round',
        options: [
          { value: 'right', title: 'right', standing: 'good' },
          { value: 'crossed', title: 'crossed', standing: 'bad', means: crossed, holds: true },
        ],
      },
      {
        key: 'side',
        ask: 'Which side carries red',
        options: [
          { value: 'left', title: 'left', standing: 'noted' },
          { value: 'right', title: 'right', standing: 'noted' },
        ],
      },
      {
        key: 'hoses',
        ask: 'Hoses clear: not dragging, not chafing, no short pull',
        options: [
          { value: 'clear', title: 'clear', standing: 'good' },
          {
            value: 'drags',
            title: 'drag or chafe',
            standing: 'bad',
            means: 'A hose that drags or chafes bursts: hang it, or make it a few inches longer.',
          },
        ],
      },
      {
        key: 'dummy',
        ask: 'Hoses not in use on dummy couplers',
        options: [
          { value: 'stowed', title: 'stowed', standing: 'good' },
          {
            value: 'hang',
            title: 'hang',
            standing: 'bad',
            means: 'Dirt and water go into an open coupler, and into the valves behind it.',
          },
          { value: 'none', title: 'all in use', standing: 'noted' },
        ],
      },
      {
        key: 'seals',
        ask: 'Coupler seals',
        options: [
          { value: 'sound', title: 'sound', standing: 'good' },
          {
            value: 'perished',
            title: 'perished',
            standing: 'bad',
            means: 'Perished seals are the usual trailer leak: change them.',
          },
        ],
      },
      {
        key: 'cocks',
        ask: 'Cocks: open to the last unit, closed behind it',
        options: [
          { value: 'right', title: 'right', standing: 'good' },
          {
            value: 'wrong',
            title: 'wrong',
            standing: 'bad',
            means: 'A closed cock leaves everything behind it without brakes.',
            holds: true,
          },
        ],
      },
      {
        key: 'last-supply',
        ask: 'Air at the last [supply coupler]',
        options: [
          { value: 'air', title: 'air', standing: 'good' },
          {
            value: 'none',
            title: 'none',
            standing: 'bad',
            means: 'A cock is closed or a line blocked ahead of it.',
            holds: true,
          },
        ],
      },
      {
        key: 'last-service',
        ask: 'No air at the last [service coupler], brakes released',
        options: [
          { value: 'none', title: 'no air', standing: 'good' },
          {
            value: 'air',
            title: 'air',
            standing: 'bad',
            means:
              'Hand valve partly on, or the trailer control or protection valve leaks. Hand valve off, then pull the [trailer knob].',
            holds: true,
          },
        ],
      },
      {
        key: 'last-applied',
        ask: 'Air at the last [service coupler], pedal down',
        options: [
          { value: 'air', title: 'air', standing: 'good' },
          {
            value: 'none',
            title: 'none',
            standing: 'bad',
            means:
              'No signal reaches the last unit: a closed cock, crossed couplers, or the trailer control or protection valve.',
            holds: true,
          },
        ],
      },
      {
        key: 'charged',
        ask: 'Brakes of every trailer come off when charged',
        options: [
          { value: 'off', title: 'come off', standing: 'good' },
          {
            value: 'drag',
            title: 'stay on',
            standing: 'bad',
            means:
              'Crossed couplers, a closed cock, a frozen line, or no supply: follow the air to the last coupler.',
            holds: true,
          },
        ],
      },
    ];
    return step({
      id: 'couplers',
      title: 'Couplers',
      say: [
        ruleSet.school === 'numbers'
          ? 'Release the trailer, let it charge, then walk round.'
          : 'Push the [trailer knob] in, let it charge, then walk round.',
      ],
      cautions: [
        'Only the chocks hold it while its brakes are off.',
        'Eye protection at couplers.',
      ],
      act: { kind: 'look', items },
    });
  },
};

/** Pressure in the supply line of the last trailer. */
export const trailerSupply: StepMaker = {
  id: 'trailer-supply',
  title: 'Supply at the last trailer',
  make: ({ rig }) =>
    tows(rig)
      ? step({
          id: 'trailer-supply',
          title: 'Supply at the last trailer',
          say: ['Read a gauge at the last [supply coupler].'],
          cautions: ['Eye protection at couplers.'],
          act: {
            kind: 'marks',
            marks: [
              needleAt('supply', 'Supply at {reading}', {
                from: 'mark',
                stepId: 'cut-out',
                key: 'cut-out',
                otherwise: { from: 'level', psi: 110 },
              }),
            ],
          },
          reckon: [{ kind: 'level', key: 'supply', figure: 'trailer-supply', by: 'test' }],
          windowFigures: ['trailer-supply'],
        })
      : null,
};

/** The numbered-port school's pressure at the supply coupling. */
export const couplingSupply: StepMaker = {
  id: 'coupling-supply',
  title: 'Supply coupling',
  make: ({ rig }) =>
    tows(rig)
      ? step({
          id: 'coupling-supply',
          title: 'Supply coupling',
          say: ['Read a gauge at the [supply coupler] with the tanks full.'],
          cautions: ['Eye protection at couplers.'],
          act: {
            kind: 'marks',
            marks: [needleAt('supply', 'Supply at {reading}', { from: 'level', psi: 108.8 })],
          },
          reckon: [{ kind: 'level', key: 'supply', figure: 'coupling-supply', by: 'test' }],
          windowFigures: ['coupling-supply'],
        })
      : null,
};

/** Hand valve and breakaway, which are felt from the cab with the parking brakes. */
export function trailerItems({ rig, ruleSet }: StepContext): LookItem[] {
  if (!tows(rig)) return [];
  const items: LookItem[] = [
    {
      key: 'hand-valve',
      ask: 'Hand valve alone applies the trailer brakes',
      options: [
        { value: 'applies', title: 'applies', standing: 'good' },
        {
          value: 'none',
          title: 'no',
          standing: 'bad',
          means: 'Hand valve, its line, or the trailer’s relay.',
        },
        { value: 'not-fitted', title: 'none fitted', standing: 'noted' },
      ],
    },
    {
      key: 'breakaway',
      ask:
        ruleSet.school === 'numbers'
          ? 'Supply coupling off: trailer brakes on at once'
          : '[trailer knob] pulled: trailer brakes on at once',
      options: [
        { value: 'on', title: 'on', standing: 'good' },
        {
          value: 'slow',
          title: 'slow',
          standing: 'bad',
          means: 'A restricted line or a sluggish relay-emergency valve.',
        },
        {
          value: 'off',
          title: 'stay off',
          standing: 'bad',
          means: 'The trailer’s relay-emergency valve, or no air in its tank.',
        },
      ],
    },
  ];
  if (hasOldTrailer(rig) && !timesBreakaway(ruleSet)) {
    items.push({
      key: 'breakaway-hold',
      ask: 'Holds 15 min on its own tank',
      options: [
        { value: 'holds', title: 'holds', standing: 'good' },
        {
          value: 'lets-go',
          title: 'lets go',
          standing: 'bad',
          means:
            'The old trailer’s tank or check valve leaks: it has no springs to hold it. Chock it.',
        },
      ],
    });
  }
  return items;
}

/** Whether a rule set times the quarter of an hour as a step of its own. */
const timesBreakaway = ({ steps }: StepContext['ruleSet']): boolean =>
  steps.some(({ stepId, need }) => stepId === 'breakaway-hold' && need !== 'off');

/** The dangers that an old trailer brings to a breakaway. */
export function trailerCautions({ rig }: StepContext): string[] {
  return hasOldTrailer(rig)
    ? ['A trailer without springs holds only while its tank does: chock it.']
    : [];
}

/** A truck has trailer controls where somebody has found them fitted; a tractor always. */
const worksTrailers = ({ unit }: RigUnderTest): boolean =>
  unit.kind === 'tractor' ||
  (unit.kind === 'truck' &&
    (unit.parts ?? []).some(
      ({ partId, standing }) => TRAILER_PARTS.has(partId) && standing === 'fitted',
    ));

const TRAILER_PARTS: ReadonlySet<string> = new Set([
  'tractor-protection',
  'trailer-supply-control',
  'trailer-control-valve',
  'trailer-supply-line',
  'trailer-service-line',
]);

/** A tractor without its trailer: red out, no air may come out of the open service coupler. */
export const tractorProtection: StepMaker = {
  id: 'tractor-protection',
  title: 'Tractor protection',
  make: ({ rig }) =>
    worksTrailers(rig) && !tows(rig)
      ? step({
          id: 'tractor-protection',
          title: 'Tractor protection',
          say: ['Nothing coupled, trailer supply shut off. Press the pedal down.'],
          cautions: ['Eye protection at couplers.'],
          act: {
            kind: 'look',
            items: [
              yesNo(
                'no-air',
                'No air at the [service coupler], pedal down',
                'no air',
                'air',
                'The tractor protection valve does not close.',
                true,
              ),
              yesNo(
                'supply-shut',
                'No air at the [supply coupler]',
                'no air',
                'air',
                'The trailer supply control lets air through.',
                true,
              ),
            ],
          },
        })
      : null,
};
