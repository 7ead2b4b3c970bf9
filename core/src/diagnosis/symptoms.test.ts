import { checksOf } from '../checks/catalogue';
import { apart, doAll, TELLS } from '../checks/tells';
import { unitOf } from '../test/walk';
import { faultsOf } from '../twin/faults/faultsOf';
import { pointsAt, symptoms } from './symptoms';

const rig = { unit: unitOf('tractor', '11'), towed: [unitOf('trailer', '22')] };
const OUTSIDE_C = -10;
const faults = faultsOf(rig, OUTSIDE_C);
const checks = checksOf(rig, faults);

describe('the trade’s table', () => {
  it('names faults and checks that a rig has, in every row', () => {
    for (const { id, failures } of symptoms) {
      const found = pointsAt(failures[0]!, faults, checks);
      expect(found?.symptom.id).toBe(id);
      expect({ id, suspects: found!.suspects.length > 0 }).toEqual({ id, suspects: true });
      expect({ id, checks: found!.checks.length > 0 }).toEqual({ id, checks: true });
    }
  });

  it('has no row for what it does not know', () => {
    expect(pointsAt('figure:gauge-error', faults, checks)).toBeNull();
  });

  it('keeps its order, and names no fault that the rig cannot have', () => {
    const truck = { unit: unitOf('truck', '12'), towed: [] };
    const own = faultsOf(truck);
    const found = pointsAt('figure:static-leak', own, checksOf(truck, own))!;
    expect(found.suspects[0]?.id).toBe('leak: primary tank');
    expect(found.suspects.some(({ id }) => id.includes('#'))).toBe(false);
    expect(pointsAt('figure:build-up-time', own, [])?.suspects.map(({ id }) => id)).toEqual([
      'compressor worn',
      'intake blocked',
      'narrowed: discharge',
      'unloader partly open',
      'narrowed: dryer outlet check',
    ]);
  });

  // Our own twin on both sides: the row’s checks reach its suspects.
  it('has checks that tell most of its suspects from a sound rig', () => {
    let told = 0;
    let all = 0;
    for (const { failures } of symptoms) {
      const { suspects, checks: some } = pointsAt(failures[0]!, faults, checks)!;
      const sound = doAll(rig, some, [], { outsideC: OUTSIDE_C });
      for (const fault of suspects.slice(0, 4)) {
        const answers = doAll(rig, some, [{ fault, severity: 0.9 }], { outsideC: OUTSIDE_C });
        all += 1;
        const tells = some.some(
          (check) =>
            apart(check, sound.get(check.id)!, answers.get(check.id)!) >= TELLS ||
            (check.doing.does === 'look' && fault.id in check.doing.under),
        );
        if (tells) told += 1;
      }
    }
    expect(all).toBeGreaterThan(25);
    expect(told / all).toBeGreaterThan(0.8);
  });
});
