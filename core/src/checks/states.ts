import type { RigState, RigStateId } from './check';

const rest = { engine: 'off', park: 'out', red: 'out', pedalPsi: 0, handPsi: 0 } as const;

/** Every state a check may need, with what it takes to get there [common practice, no source]. */
export const STATES: Readonly<Record<RigStateId, RigState>> = {
  parked: { id: 'parked', title: 'Charged, parked, engine off', ...rest, minutes: 1 },
  released: {
    id: 'released',
    title: 'Charged, brakes released, engine off',
    ...rest,
    park: 'in',
    red: 'in',
    minutes: 2,
  },
  applied: {
    id: 'applied',
    title: 'Brakes released, pedal held full',
    ...rest,
    park: 'in',
    red: 'in',
    pedalPsi: 90,
    minutes: 3,
  },
  'parked, applied': {
    id: 'parked, applied',
    title: 'Parked, pedal held full',
    ...rest,
    red: 'in',
    pedalPsi: 90,
    minutes: 2,
  },
  loading: {
    id: 'loading',
    title: 'Engine fast, compressor loading',
    ...rest,
    engine: 'fast',
    minutes: 3,
  },
  unloaded: {
    id: 'unloaded',
    title: 'Engine idling, governor cut out',
    ...rest,
    engine: 'idle',
    minutes: 3,
  },
  'red out': {
    id: 'red out',
    title: 'Park released, supply to the trailer off',
    ...rest,
    park: 'in',
    minutes: 2,
  },
  'supply drained': {
    id: 'supply drained',
    title: 'Brakes released, supply tank drained and left open',
    ...rest,
    park: 'in',
    red: 'in',
    minutes: 4,
  },
  'cocks shut': {
    id: 'cocks shut',
    title: 'Brakes released, both cocks behind the first trailer shut',
    ...rest,
    park: 'in',
    red: 'in',
    minutes: 3,
  },
  'hand on': {
    id: 'hand on',
    title: 'Brakes released, hand valve on',
    ...rest,
    park: 'in',
    red: 'in',
    handPsi: 60,
    minutes: 2,
  },
};
