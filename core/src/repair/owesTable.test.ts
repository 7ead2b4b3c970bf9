import { checksOf, checksOfRetest } from '../checks';
import { optionalParts, partsOf, type Part } from '../rig/partsOf';
import { unitsOf } from '../rig/rigUnderTest';
import { rigsOfEverySort } from '../test/rigsOfEverySort';
import { unitOf } from '../test/walk';
import { retestsOf } from './retests';

const REPAIRS = ['replaced', 'cleaned', 'reseated', 'remade', 'adjusted'] as const;
const truck = unitOf('truck', '10');
const rig = [unitOf('tractor', '11'), unitOf('trailer', '22')];

const owed = (units: typeof rig, at: number, partId: string, repair: (typeof REPAIRS)[number]) =>
  retestsOf({ units, at: { unitId: units[at]!.id, partId }, repair });
const said = (units: typeof rig, at: number, partId: string, repair: (typeof REPAIRS)[number]) =>
  owed(units, at, partId, repair)
    .map(({ stepId, check }) => stepId ?? check!.what)
    .join(' ');

/*
 * What work on each part owes, written by hand from the trade's own list [trade: repair and release; what a release has
 * to prove]. "brake" is both holds and a service stop.
 */
const BRAKE = 'static-hold applied-hold service-stop';
const ON_A_TRUCK: readonly (readonly [parts: string, owes: string])[] = [
  ['governor', 'build-up cut-out cut-in cycle'],
  ['compressor', 'build-up cut-out cycle static-hold'],
  ['discharge-line', 'build-up cut-out cycle static-hold soap'],
  ['dryer', 'cut-out purge cycle static-hold'],
  ['safety-valve', 'cycle static-hold safety-valve'],
  ['accessories suspension horn wiper seat tyre-inflation auxiliary-compressor', 'static-hold'],
  ['pre-cleaner', 'cycle static-hold'],
  ['supply-tank primary-check secondary-check', 'static-hold fail-supply'],
  ['supply-drain primary-drain secondary-drain', 'static-hold'],
  ['primary-tank', `${BRAKE} fail-primary`],
  ['secondary-tank', `${BRAKE} fail-secondary`],
  ['dash-double-check', 'static-hold fail-primary fail-secondary'],
  ['dash-feed', 'static-hold pop-out holding soap'],
  ['foot-valve', `${BRAKE} stop-lamp curve residual`],
  ['front-quick-release antilock', `${BRAKE} timing`],
  ['rear-relay', `${BRAKE} curve timing`],
  ['rear-control-line', `${BRAKE} curve soap`],
  ['front-chambers front-chambers.1-left front-chambers.1-right', `${BRAKE} stroke`],
  ['rear-chambers rear-chambers.1-left rear-chambers.2-right', `${BRAKE} holding stroke`],
  ['park-control', 'static-hold pop-out park-stays holding anti-compounding'],
  ['park-relay', 'static-hold pop-out holding anti-compounding'],
  ['park-line', 'static-hold pop-out holding anti-compounding soap'],
  ['anti-compounding', `${BRAKE} pop-out holding anti-compounding`],
  ['modulating-valve', 'static-hold pop-out holding fail-primary'],
  ['primary-low-air-switch secondary-low-air-switch', 'warning warning-parts rebuild'],
  ['stop-lamp-switch', 'stop-lamp'],
  ['gauge', 'gauge-comparison static-hold'],
];
const ON_A_TRACTOR: readonly (readonly [parts: string, owes: string])[] = [
  ['trailer-supply-control', 'static-hold pop-out couplers trailer-supply holding'],
  ['tractor-protection', `${BRAKE} pop-out couplers holding`],
  ['foot-double-check', `${BRAKE} couplers fail-primary fail-secondary`],
  ['hand-valve hand-double-check', `${BRAKE} couplers holding`],
  ['trailer-service-line', `${BRAKE} couplers soap`],
  ['trailer-supply-line', 'static-hold couplers holding soap'],
];
const ON_A_TRAILER: readonly (readonly [parts: string, owes: string])[] = [
  ['relay', `${BRAKE} couplers trailer-supply holding curve timing`],
  ['tank tank-check', `${BRAKE} couplers trailer-supply holding`],
  ['drain', 'static-hold couplers trailer-supply'],
  ['chambers chambers.1-left chambers.2-right', `${BRAKE} couplers trailer-supply holding stroke`],
  ['antilock', `${BRAKE} couplers trailer-supply holding timing`],
  ['service-line', `${BRAKE} couplers trailer-supply holding soap`],
  ['supply-line spring-line', 'static-hold couplers trailer-supply holding soap'],
  ['supply-coupler service-coupler', `${BRAKE} couplers trailer-supply holding`],
  ['supply-cock service-cock', `${BRAKE} couplers trailer-supply holding`],
];
/** Joints made again: the holds they show in, and on the way to a brake the stop. */
const REMADE: readonly (readonly [parts: string, owes: string])[] = [
  ['rear-control-line primary-tank secondary-tank', `${BRAKE} soap`],
  ['rear-chambers front-chambers.1-left', `${BRAKE} soap`],
  ['park-line supply-tank dryer discharge-line primary-drain', 'static-hold soap'],
  ['accessories horn', 'static-hold'],
];

const rows = (table: readonly (readonly [string, string])[]) =>
  table.flatMap(([parts, owes]) => parts.split(' ').map((part) => [part, owes] as const));
/** The same whatever the order. */
const sorted = (words: string) => words.split(' ').sort().join(' ');

describe('what work owes, by hand', () => {
  it.each(rows(ON_A_TRUCK))('%s of a truck, replaced', (part, owes) => {
    expect(sorted(said([truck], 0, part, 'replaced'))).toBe(sorted(owes));
  });
  it.each(rows(ON_A_TRACTOR))('%s of a tractor, coupled, replaced', (part, owes) => {
    expect(sorted(said(rig, 0, part, 'replaced'))).toBe(sorted(owes));
  });
  it.each(rows(ON_A_TRAILER))('%s of a trailer, coupled, replaced', (part, owes) => {
    expect(sorted(said(rig, 1, part, 'replaced'))).toBe(sorted(owes));
  });
  it.each(rows(REMADE))('%s of a truck, made up again', (part, owes) => {
    expect(sorted(said([truck], 0, part, 'remade'))).toBe(sorted(owes));
  });

  it('names every part of a truck, a tractor and a trailer', () => {
    const named = (tables: readonly (readonly (readonly [string, string])[])[]) =>
      new Set(tables.flatMap(rows).map(([part]) => part.split('.')[0]));
    const missing = (units: readonly (typeof truck)[], names: ReadonlySet<string | undefined>) =>
      units.flatMap((unit) =>
        [...partsOf(unit), ...optionalParts(unit)].flatMap(({ id }) =>
          names.has(id.split('.')[0]) ? [] : [id],
        ),
      );
    expect(missing([rig[0]!], named([ON_A_TRUCK, ON_A_TRACTOR]))).toEqual([]);
    expect(
      missing([rig[1]!], named([ON_A_TRAILER])).filter(
        (id) => id !== 'suspension' && id !== 'tyre-inflation',
      ),
    ).toEqual([]);
  });
});

/** Between tank and drum: whatever carries or meters service air, or pushes a rod by it. */
const TO_A_BRAKE = new Set<Part['role']>([
  ...(['foot-valve', 'quick-release', 'relay', 'relay-emergency', 'load-sensing'] as const),
  ...(['antilock-modulator', 'chamber', 'chambers', 'trailer-control-valve'] as const),
  ...(['tractor-protection', 'hand-valve', 'coupler', 'cock'] as const),
]);
const LINES_TO_A_BRAKE = /(control|service)-line$|^(primary|secondary)-tank$|^tank(-check)?$/;

const everyWork = Object.entries(rigsOfEverySort).flatMap(([name, each]) => {
  const units = [...unitsOf(each)];
  return units.flatMap((unit, at) =>
    [...partsOf(unit), ...optionalParts(unit)].flatMap((part) =>
      REPAIRS.map((repair) => ({ name, each, units, unit, at, part, repair })),
    ),
  );
});

describe('every work on every part of every rig', () => {
  it('on the way to a brake owes both holds and the stop: nothing between tank and drum goes without its brake proved', () => {
    let looked = 0;
    for (const { name, units, at, part, repair } of everyWork) {
      if (!TO_A_BRAKE.has(part.role) && !LINES_TO_A_BRAKE.test(part.id)) continue;
      looked += 1;
      const steps = owed(units, at, part.id, repair).map(({ stepId }) => stepId);
      expect([name, part.id, repair, steps]).toEqual([
        ...[name, part.id, repair],
        expect.arrayContaining(BRAKE.split(' ')),
      ]);
    }
    expect(looked).toBeGreaterThan(500);
  });

  it('owes something, and nothing that cannot be done: each check is in the rig’s catalogue', () => {
    const catalogues = new Map(
      Object.values(rigsOfEverySort).map((each) => [each, checksOf(each, [])] as const),
    );
    for (const { name, each, units, at, part, repair } of everyWork) {
      const retests = owed(units, at, part.id, repair);
      expect([name, part.id, repair, retests.length > 0]).toEqual([name, part.id, repair, true]);
      for (const retest of retests) {
        if (!retest.check) continue;
        expect([name, retest.id, checksOfRetest(catalogues.get(each)!, retest).length > 0]).toEqual(
          [...[name, retest.id, true]],
        );
      }
    }
  });
});
