import { unitOf } from '../test/walk';
import { partsOf } from '../rig/partsOf';
import { checksOf, checksOfRetest } from '../checks';
import { retestsOf } from './retests';

const tractor = unitOf('tractor', '11');
const trailer = unitOf('trailer', '22');
const truck = unitOf('truck', '10');
const rig = [tractor, trailer];

const idsOf = (
  partId: string,
  units = [truck],
  at = 0,
  repair: 'replaced' | 'remade' = 'replaced',
) =>
  retestsOf({ units, at: { unitId: units[at]!.id, partId }, repair }).map(
    ({ id, stepId, check }) => stepId ?? check?.what ?? id,
  );

describe('what a repair owes [trade: what must be rerun depends on the part]', () => {
  it.each([
    // governor → cut-in, cut-out, build-up, cycle
    ['governor', ['cut-in', 'cut-out', 'build-up', 'cycle']],
    // dryer, supply parts → cycle time, static
    ['dryer', ['cycle', 'static-hold']],
    ['discharge-line', ['cycle', 'static-hold']],
    // tank, check valve → static, circuit failure
    ['supply-tank', ['static-hold', 'fail-supply']],
    ['primary-tank', ['static-hold', 'fail-primary']],
    ['secondary-tank', ['static-hold', 'fail-secondary']],
    ['primary-check', ['static-hold', 'fail-supply']],
    // foot valve → applied, both circuits' curves, release
    ['foot-valve', ['applied-hold', 'curve', 'residual']],
    // relay → curve, applied, timing
    ['rear-relay', ['applied-hold', 'curve', 'timing']],
    // park parts → static with park released, pop-out, holding
    ['park-control', ['static-hold', 'pop-out', 'holding']],
    ['park-relay', ['static-hold', 'pop-out', 'holding']],
    // chamber → static, applied, stroke, holding
    ['rear-chambers', ['static-hold', 'applied-hold', 'stroke', 'holding']],
    ['rear-chambers.1-left', ['static-hold', 'applied-hold', 'stroke', 'holding']],
    // switches → warning, stop lamp
    ['primary-low-air-switch', ['warning']],
    ['stop-lamp-switch', ['stop-lamp']],
  ])('%s', (partId, asked) => {
    expect(idsOf(partId)).toEqual(expect.arrayContaining(asked));
  });

  it('is no more than that: a switch owes no hold, a governor no relay’s curve', () => {
    expect(idsOf('stop-lamp-switch')).toEqual(['stop-lamp']);
    expect(idsOf('governor').sort()).toEqual(['build-up', 'cut-in', 'cut-out', 'cycle']);
    expect(idsOf('primary-low-air-switch').sort()).toEqual(['rebuild', 'warning', 'warning-parts']);
  });

  it('of a part behind the coupling has the trailer’s extras too', () => {
    const owed = idsOf('relay', rig, 1);
    expect(owed).toEqual(
      expect.arrayContaining(['applied-hold', 'curve', 'timing', 'couplers', 'trailer-supply']),
    );
    // On the shop's air it is tested by itself.
    expect(idsOf('relay', [trailer])).toEqual(expect.arrayContaining(['trailer-alone']));
  });

  it('of a joint that was made again is the holds it shows in and soap; on the way to a brake the stop too', () => {
    expect(idsOf('park-line', [truck], 0, 'remade')).toEqual(['static-hold', 'soap']);
    expect(idsOf('rear-control-line', [truck], 0, 'remade')).toEqual([
      ...['static-hold', 'applied-hold', 'service-stop', 'soap'],
    ]);
  });

  it('is something for every part there is, on every kind of unit, each with its minutes', () => {
    for (const units of [[truck], rig, [trailer], [unitOf('bus', '02')], [unitOf('dolly', '23')]]) {
      units.forEach((unit) => {
        for (const { id } of partsOf(unit)) {
          const owed = retestsOf({
            units,
            at: { unitId: unit.id, partId: id },
            repair: 'replaced',
          });
          expect([unit.kind, id, owed.length > 0]).toEqual([unit.kind, id, true]);
          expect(new Set(owed.map((each) => each.id)).size).toBe(owed.length);
          for (const { minutes } of owed) expect(minutes).toBeGreaterThan(0);
        }
      });
    }
  });

  it('finds its checks in the rig’s catalogue, but where the part has none there', () => {
    const checks = checksOf({ unit: tractor, towed: [trailer] }, []);
    const found = (partId: string, at: number) =>
      retestsOf({ units: rig, at: { unitId: rig[at]!.id, partId }, repair: 'replaced' })
        .filter(({ check }) => check !== null)
        .map((retest) => [retest.check?.what, checksOfRetest(checks, retest).map(({ id }) => id)]);
    expect(found('rear-relay', 0)).toEqual([
      ['curve', ['0/compare/rear relay control/rear delivery/released']],
      ['timing', ['0/time/rear left/down', '0/time/rear left/up']],
    ]);
    expect(found('relay', 1)).toEqual([
      ['curve', ['1/compare/#1 service line/#1 delivery/released']],
      ['timing', ['1/time/#1 left/down', '1/time/#1 left/up']],
    ]);
    expect(found('foot-valve', 0)).toEqual([
      ['curve', ['0/compare/rear signal/front signal/released']],
      ['residual', ['0/read/rear signal/released', '0/read/front signal/released']],
    ]);
    expect(found('rear-chambers.1-left', 0)).toEqual([['stroke', ['0/look/rear left/stroke']]]);
  });

  it('has every check it asks for in the catalogue of every kind of unit', () => {
    for (const units of [[truck], rig, [trailer], [unitOf('bus', '02')]]) {
      const [unit, ...towed] = units;
      const checks = checksOf({ unit: unit!, towed }, []);
      units.forEach((each) => {
        for (const { id } of partsOf(each)) {
          for (const retest of retestsOf({
            units,
            at: { unitId: each.id, partId: id },
            repair: 'replaced',
          })) {
            if (!retest.check) continue;
            expect([each.kind, retest.id, checksOfRetest(checks, retest).length > 0]).toEqual([
              each.kind,
              retest.id,
              true,
            ]);
          }
        }
      });
    }
  });
});
