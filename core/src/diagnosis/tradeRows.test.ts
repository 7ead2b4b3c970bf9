import { doCheck, hasFault, USUAL_SENSES } from '../checks/index';
import { usualGauge } from '../rig/newUnit';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { semi, truck } from '../test/rigsInAir';
import { effectsOf } from '../twin/faults/fault';
import { drawsOf } from '../twin/random';
import { dashRun } from '../twin/routine/dashRun';
import { played } from '../twin/routine/player';
import { atDash } from '../twin/routine/reader';
import { drawRig } from '../twin/spread/drawnRig';
import { Twin } from '../twin/twin';
import { rankingOf, RigModel, runFigures, Weighing, type Evidence } from './index';

/*
 * Rows of the trade's table (common practice, no source): a rig drawn from the spread with the fault, read at its dash by
 * eye, then that row's check. Of the rig's faults only those of the rows are worked out, so that this runs in seconds:
 * the bench weighs all of them.
 */
type Row = readonly [fault: string, severity: number, checks: readonly string[]];

const ON_TRUCK: readonly Row[] = [
  ['compressor worn', 0.95, ['0/time/build-up', '0/look/intake', '0/look/discharge']],
  ['intake blocked', 0.9, ['0/look/intake']],
  ['narrowed: discharge', 0.9, ['0/read/discharge line/loading', '0/look/discharge']],
  ['governor stuck', 0.8, ['0/read/governor line/unloaded']],
  ['seat: supply drain', 0.8, ['0/watch/supply tank/parked', '0/listen/supply drain/parked']],
  [
    'outlet check',
    0.8,
    [
      '0/listen/purge valve/loading',
      '0/listen/purge valve/unloaded',
      '0/listen/safety valve/parked',
      '0/listen/supply drain/parked',
    ],
  ],
  ['leak: secondary tank', 0.7, ['0/wet/secondary tank']],
  ['seat: primary drain', 0.7, ['0/listen/primary drain/parked', '0/wet/primary tank']],
  ['leak: spring line', 0.7, ['0/watch/secondary tank/parked', '0/wet/spring line']],
  ['leak: front left', 0.7, ['0/wet/front left']],
  ['seat: rear relay: inlet', 0.8, ['0/listen/rear relay: exhaust/parked']],
  ['governor high', 0.9, ['0/read/governor/out']],
  ['unloader partly open', 0.9, ['0/look/unloader', '0/time/build-up']],
  ['narrowed: dryer outlet check', 0.9, ['0/read/discharge line/loading', '0/look/discharge']],
  ['seat: purge valve', 0.8, ['0/listen/purge valve/loading', '0/look/intake', '0/time/build-up']],
  ['leak: discharge line', 0.8, ['0/wet/discharge line']],
  // A worse one lets the compressor load before anybody has wetted it.
  ['leak: governor line', 0.5, ['0/wet/governor line']],
  ['seat: safety valve', 0.8, ['0/listen/safety valve/parked']],
  ['leak: primary tank', 0.7, ['0/wet/primary tank']],
  ['pierced: accessory take-off', 0.7, ['0/listen/accessory take-off/parked']],
  ['seat: foot valve, primary: inlet', 0.8, ['0/listen/foot valve, primary: exhaust/released']],
  ['seat: foot valve, primary: exhaust', 0.8, ['0/listen/foot valve, primary: exhaust/applied']],
  [
    'seat: front quick-release: exhaust',
    0.8,
    ['0/listen/front quick-release: exhaust/applied', '0/wet/front left'],
  ],
  ['seat: park relay: inlet', 0.8, ['0/listen/park relay: exhaust/parked']],
  ['leak: park line', 0.8, ['0/wet/park line']],
  ['narrowed: rear control line', 0.9, ['0/time/rear left/down', '0/look/hose rear left']],
  ['quick-release blocked', 0.9, ['0/time/front left/up', '0/time/rear left/up']],
  ['narrowed: rear relay: exhaust', 0.9, ['0/time/rear left/up', '0/time/front left/up']],
  ['park valve high', 0.9, ['0/read/park valve']],
  ['dash double check', 0.9, ['0/watch/primary drain/secondary tank/fall']],
  ['primary warning low', 0.9, ['0/read/primary warning']],
  ['park valve low', 0.9, ['0/read/park valve']],
  ['stop lamp dead', 1, ['0/look/wiring stop lamp']],
  ['desiccant spent', 0.9, ['0/feel/supply-drain/damp']],
  [
    'centre seal: rear left',
    0.8,
    ['0/listen/rear relay: exhaust/released', '0/listen/rear relay: exhaust/parked'],
  ],
  ['seat: rear relay: exhaust', 0.8, ['0/listen/rear relay: exhaust/applied']],
  ['rear relay crack', 0.9, ['0/compare/rear relay control/rear delivery/released']],
  ['foot valve stays', 0.8, ['0/read/front left/released', '0/read/rear left/released']],
  ['secondary check', 0.9, ['0/watch/supply drain/secondary tank/fall']],
  [
    'modulating valve dead',
    1,
    ['0/watch/primary drain/spring line/reading', '0/watch/primary drain/spring line/cycled'],
  ],
];

const ON_TRAILER: readonly Row[] = [
  ['#1 crossed', 1, ['1/look/couplers']],
  ['#1 cock', 1, ['1/look/#1 cock']],
  ['hand valve on', 0.9, ['0/read/hand signal/released', '0/read/trailer service line/released']],
  ['leak: #1 supply line', 0.8, ['1/watch/#1 tank/red out', '1/wet/#1 supply line']],
  ['trailer supply low', 0.9, ['0/read/trailer supply valve']],
  ['seat: trailer supply valve: exhaust', 0.8, ['0/listen/trailer supply valve: exhaust/released']],
  ['seat: hand valve: inlet', 0.8, ['0/listen/hand valve: exhaust/released']],
  ['narrowed: #1 relay: exhaust', 0.9, ['1/time/#1 left/up', '0/read/hand signal/released']],
  ['#1 relay crack', 0.9, ['1/compare/#1 service line/#1 delivery/released']],
];

function rowsOf(rig: RigUnderTest, rows: readonly Row[]) {
  const model = new RigModel(rig);
  const wanted = rows.map(([id]) => id);
  for (const _ of model.prepare('first', wanted)) void _;
  const ids = [...new Set(rows.flatMap(([, , checks]) => checks))].filter((id) =>
    model.checkById.has(id),
  );
  for (const fault of wanted) {
    for (const severity of [0.2, 0.6, 1]) model.answersTo(ids, fault, severity);
  }

  const readAt = (fault: string | null, severity: number, seed: number) => {
    const draws = drawsOf(seed);
    const drawn = drawRig(rig, seed + 500);
    const has = fault === null ? [] : effectsOf(model.faultById.get(fault)!, severity);
    const twin = new Twin(rig, { tanksPsi: 70 });
    twin.apply([...drawn.effects, ...has]);
    const error = (place: string) =>
      drawn.needleErrorPsi[place.startsWith('p') ? 'primary' : 'secondary'];
    const seen = played(twin, dashRun(twin, { ears: false }), atDash(usualGauge.psi, draws, error));
    return { figures: runFigures(seen), drawn, draws, has };
  };

  /** The first suspect, or first group, after the row's checks. */
  const firstAfter = ([fault, severity, checks]: Row) => {
    const { figures, drawn, draws, has } = readAt(fault, severity, 7);
    const evidence: Evidence[] = [{ kind: 'run', atMs: 1, figures }];
    for (const checkId of checks) {
      const check = model.checkById.get(checkId);
      if (!check) throw new Error(`no check ${checkId}`);
      const twin = new Twin(rig, { tanksPsi: 90 });
      twin.apply([...drawn.effects, ...has]);
      const chance = { even: () => 0.5, normal: () => draws.normal(2) };
      const faults = [hasFault(model.faultById.get(fault)!, severity)];
      const answer = doCheck(twin, check, { senses: USUAL_SENSES, chance, faults });
      evidence.push({ kind: 'answer', atMs: 2, checkId, answer });
    }
    return rankingOf(new Weighing(model, evidence)).suspects[0];
  };
  return { model, readAt, firstAfter };
}

describe('rows of the trade’s table, on a truck', () => {
  const { model, readAt, firstAfter } = rowsOf(truck, ON_TRUCK);

  it.each(ON_TRUCK)('put %s first, or in a first group of three, after their check', (...row) => {
    const first = firstAfter(row);
    expect(first?.faults.length).toBeLessThanOrEqual(3);
    expect(first?.faults.map(({ id }) => id)).toContain(row[0]);
  });

  it('accuses nobody on a sound rig straight after build-up', () => {
    for (const seed of [1, 2, 3]) {
      const { figures } = readAt(null, 0, seed);
      const ranking = rankingOf(new Weighing(model, [{ kind: 'run', atMs: 1, figures }]));
      expect(ranking.suspects[0]?.chance ?? 0).toBeLessThan(0.5);
    }
  });

  it('says that it is rough while not every fault is worked out', () => {
    const { figures } = readAt(null, 0, 1);
    const weighing = new Weighing(model, [{ kind: 'run', atMs: 1, figures }]);
    expect(weighing.isRough).toBe(true);
    // What has no run yet is not weighed, and counts as something else.
    expect(weighing.faults.map(({ id }) => id)).toEqual(
      model.faults.flatMap(({ id }) => (model.runsOf(id).length > 0 ? [id] : [])),
    );
    expect(weighing.faults.length).toBeLessThan(model.faults.length);
    expect(rankingOf(weighing).unlisted).toBeGreaterThan(0.01);
  });
});

describe('rows of the trade’s table, on a tractor and trailer', () => {
  const { firstAfter } = rowsOf(semi, ON_TRAILER);

  it.each(ON_TRAILER)('put %s first, or in a first group of three, after their check', (...row) => {
    const first = firstAfter(row);
    expect(first?.faults.length).toBeLessThanOrEqual(3);
    expect(first?.faults.map(({ id }) => id)).toContain(row[0]);
  });
});
