import type { RuleSet, Unit } from '@keen-bleed/contract';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { usualGauge } from '../rig/newUnit';
import { roadTest } from '../standards/roadTest';
import { unitOf } from './walk';

const alone = (unit: Unit): RigUnderTest => ({ unit, towed: [] });
const noSprings: Partial<Unit> = { chambers: [{ type: '24', count: 4, springBrake: false }] };

/** Rigs that differ in what a description may say: kind, age, circuits, ports, equipment, what is coupled. */
export const rigsOfEverySort: Readonly<Record<string, RigUnderTest>> = {
  'a bus, its dial in bar': alone(unitOf('bus', '30', { gauge: usualGauge.bar })),
  'an old truck with one circuit, by its maker': alone(
    unitOf('truck', '31', {
      ...{ circuits: 'single', buildYear: 1968, gauge: { ...usualGauge.psi, division: 5 } },
      makerLimits: { buildUpMaxS: 60, cutOutMaxPsi: 130, staticLeakMaxPsiPerMin: 2 },
      governor: { cutInPsi: 85, cutOutPsi: 110 },
    }),
  ),
  'a truck with numbered ports and all there is': alone(
    unitOf('truck', '32', {
      ...{ ports: 'numbers', gauge: usualGauge.kPa },
      air: {
        ...{ modulatingValve: true, antiCompounding: true, dryerPurge: 'service-tank' },
        ...{ stopLampSwitches: 'two', lowAirSwitches: 'supply-tank' },
      },
    }),
  ),
  'a truck with a full trailer': {
    unit: unitOf('truck', '33', { air: { antiCompounding: true } }),
    towed: [unitOf('dolly', '34'), unitOf('trailer', '35')],
  },
  'a tractor with two trailers, the last with numbered ports': {
    unit: unitOf('tractor', '36', { air: { stopLampSwitches: 'one' } }),
    towed: [
      unitOf('trailer', '37'),
      unitOf('dolly', '38'),
      unitOf('trailer', '39', { ports: 'numbers' }),
    ],
  },
  'a tractor that tows nothing': alone(unitOf('tractor', '40')),
  'a truck of 1990 with an old trailer without springs': {
    unit: unitOf('truck', '41', { buildYear: 1990 }),
    towed: [unitOf('trailer', '42', { buildYear: 1972, ...noSprings })],
  },
  'a trailer without springs': alone(unitOf('trailer', '43', noSprings)),
  'a dolly alone': alone(unitOf('dolly', '44')),
};

/** The road test with every switch the other way. */
export const switchedOver: RuleSet = {
  ...roadTest,
  id: 'switched-over',
  title: 'Every switch the other way',
  switches: {
    ...{ popOutTo: '40', heldBy: 'low-gear', leakTests: 'applied-only', gauges: 'both' },
    ...{ order: 'warning-first', headedBy: 'as-read' },
  },
};
