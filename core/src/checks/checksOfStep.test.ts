import { faultsOf } from '../twin/faults/faultsOf';
import { unitOf } from '../test/walk';
import { checksOfStep, failsAt } from './actsAt';
import { checksOf } from './catalogue';

const rig = { unit: unitOf('tractor', '11'), towed: [unitOf('trailer', '22')] };
const checks = checksOf(rig, faultsOf(rig));

/* What a step of a run does is what these checks do: written by hand from the order of the work. */
it.each<[string, (doing: Record<string, unknown>, state: string) => boolean]>([
  ['build-up', ({ does }) => does === 'build'],
  ['cut-out', ({ does, way }) => does === 'governor' && way === 'out'],
  ['cut-in', ({ does, way }) => does === 'governor' && way === 'in'],
  ['drain', ({ does }) => does === 'drain'],
  ['static-hold', ({ does }, state) => does === 'fall' && state === 'released'],
  ['applied-hold', ({ does }, state) => does === 'fall' && state === 'applied'],
  ['stop-lamp', ({ does }) => does === 'lights'],
  ['couplers', ({ does }) => does === 'couplers'],
  ['fail-supply', ({ does, drain }) => does === 'drained' && drain === 'supply drain'],
  ['fail-primary', ({ does, drain }) => does === 'drained' && drain === 'primary drain'],
  ['fail-secondary', ({ does, drain }) => does === 'drained' && drain === 'secondary drain'],
])('%s is made by those checks and no others', (step, does) => {
  const own = checksOfStep(checks, step);
  expect(own.length).toBeGreaterThan(0);
  expect(own).toEqual(
    checks.filter(({ doing, state }) =>
      does(doing as unknown as Record<string, unknown>, state.id),
    ),
  );
});

it('switches are those of the step: warnings, or the dash’s valves', () => {
  const latches = (step: string) =>
    checksOfStep(checks, step).map(({ doing }) => doing.does === 'switches' && doing.latch);
  expect(latches('warning').length).toBeGreaterThan(0);
  for (const latch of latches('warning')) expect(latch).toMatch(/warning$/);
  expect(latches('pop-out').length).toBeGreaterThan(0);
  for (const latch of latches('pop-out')) expect(latch).toMatch(/valve$/);
});

it('a step that is no check of the catalogue has none, and what is no step is at no part', () => {
  expect(checksOfStep(checks, 'prepare')).toEqual([]);
  expect(failsAt(rig, 'figure:nothing-of-the-kind')).toEqual([]);
});
