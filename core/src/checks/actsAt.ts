import { stepOfFailure } from '../procedure/stepOfFailure';
import type { PartRole } from '../rig/partsOf';
import { plumbingOf } from '../rig/plumbing/plumbingOf';
import { unitsOf, type RigUnderTest } from '../rig/rigUnderTest';
import type { Check } from './check';

/** Which parts each step of a run works on. What is left out acts on no part alone. */
const STEPS: Readonly<Record<string, readonly PartRole[]>> = {
  charge: ['compressor', 'tank'],
  'build-up': ['compressor', 'tank'],
  'build-up-rated': ['compressor', 'tank'],
  rebuild: ['compressor', 'tank'],
  'cut-out': ['governor', 'dryer'],
  'cut-in': ['governor'],
  cycle: ['governor'],
  drain: ['tank', 'drain'],
  'static-hold': ['tank'],
  'applied-hold': ['foot-valve', 'relay', 'quick-release', 'chamber'],
  'anti-compounding': ['double-check', 'park-relay', 'chamber'],
  'fail-supply': ['check-valve'],
  'fail-primary': ['check-valve', 'double-check', 'modulating-valve'],
  'fail-secondary': ['check-valve', 'double-check'],
  couplers: ['coupler'],
  'coupling-supply': ['coupler', 'cock'],
  'trailer-supply': ['trailer-supply-control', 'trailer-control-valve', 'coupler'],
  'trailer-alone': ['coupler', 'relay', 'relay-emergency'],
  'tractor-protection': ['tractor-protection', 'trailer-control-valve'],
  'breakaway-hold': ['coupler', 'tank', 'relay-emergency'],
  'breakaway-held': ['coupler', 'tank', 'relay-emergency'],
  'pop-out': ['park-control', 'trailer-supply-control'],
  'park-stays': ['park-control', 'hand-brake-valve'],
  'hand-brake-test': ['hand-brake-valve'],
  holding: ['chamber'],
  warning: ['low-air-switch'],
  'warning-parts': ['low-air-switch'],
  'stop-lamp': ['stop-lamp-switch'],
  'safety-valve': ['safety-valve'],
  reserve: ['tank'],
  'ninth-stroke': ['tank'],
};

/** Parts that a step of a run works on, each by its unit and id. */
export function actsAt(rig: RigUnderTest, stepId: string): { unit: number; part: string }[] {
  const roles = new Set(STEPS[stepId] ?? []);
  return unitsOf(rig).flatMap((unit, at) =>
    plumbingOf(unit)
      .parts.filter(({ role }) => roles.has(role))
      .map(({ id }) => ({ unit: at, part: id })),
  );
}

/** Parts that an open failure is at, by its key: `figure:cut-out`, or `look:couplers/seals` for a step and its look. */
export function failsAt(rig: RigUnderTest, key: string): { unit: number; part: string }[] {
  const step = stepOfFailure(key);
  return step === null ? [] : actsAt(rig, step);
}

/** What of the catalogue a step of a run is: where it acts, and what is read there. */
const SAME: Readonly<Record<string, (check: Check) => boolean>> = {
  'build-up': ({ doing }) => doing.does === 'build',
  'cut-out': ({ doing }) => doing.does === 'governor' && doing.way === 'out',
  'cut-in': ({ doing }) => doing.does === 'governor' && doing.way === 'in',
  drain: ({ doing }) => doing.does === 'drain',
  'static-hold': ({ doing, state }) => doing.does === 'fall' && state.id === 'released',
  'applied-hold': ({ doing, state }) => doing.does === 'fall' && state.id === 'applied',
  warning: ({ doing }) => doing.does === 'switches' && doing.latch.endsWith('warning'),
  'pop-out': ({ doing }) => doing.does === 'switches' && doing.latch.endsWith('valve'),
  'stop-lamp': ({ doing }) => doing.does === 'lights',
  couplers: ({ doing }) => doing.does === 'couplers',
  'fail-supply': ({ doing }) => doing.does === 'drained' && doing.drain === 'supply drain',
  'fail-primary': ({ doing }) => doing.does === 'drained' && doing.drain === 'primary drain',
  'fail-secondary': ({ doing }) => doing.does === 'drained' && doing.drain === 'secondary drain',
};

/** The checks of a rig's catalogue that a step of a run makes. */
export const checksOfStep = (checks: readonly Check[], stepId: string): readonly Check[] =>
  checks.filter(SAME[stepId] ?? (() => false));
