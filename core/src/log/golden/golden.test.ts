import { check, logKindNames } from '@keen-bleed/contract';
import { CORE_VERSION } from '../../version';
import { anyLogKind } from '../logKinds';
import { upToDate } from '../upToDate';
import { meaningOf, type Golden } from './meaning';
import run020DrainApartTruck from './records/run-0.2.0-drain-apart-truck.json';
import run020DrainApartRig from './records/run-0.2.0-drain-apart-rig.json';
import run020Truck from './records/run-0.2.0-truck.json';
import run020Rig from './records/run-0.2.0-rig.json';
import run030Truck from './records/run-0.3.0-truck.json';
import run030Rig from './records/run-0.3.0-rig.json';
import run030Numbers from './records/run-0.3.0-numbers.json';
import run040Truck from './records/run-0.4.0-truck.json';
import run040Rig from './records/run-0.4.0-rig.json';
import run040Numbers from './records/run-0.4.0-numbers.json';
import run060Truck from './records/run-0.6.0-truck.json';
import run060Rig from './records/run-0.6.0-rig.json';
import run060Numbers from './records/run-0.6.0-numbers.json';
import job060 from './records/job-0.6.0.json';
import visit060 from './records/visit-0.6.0.json';
import run050Truck from './records/run-0.5.0-truck.json';
import run050Rig from './records/run-0.5.0-rig.json';
import run050Numbers from './records/run-0.5.0-numbers.json';
import job050 from './records/job-0.5.0.json';
import visit050 from './records/visit-0.5.0.json';
import job040 from './records/job-0.4.0.json';
import visit030 from './records/visit-0.3.0.json';
import visit040 from './records/visit-0.4.0.json';

/** Every record that is kept; a version's are never written over. */
const records = Object.entries({
  'run-0.2.0-drain-apart-truck': run020DrainApartTruck,
  'run-0.2.0-drain-apart-rig': run020DrainApartRig,
  'run-0.2.0-truck': run020Truck,
  'run-0.2.0-rig': run020Rig,
  'run-0.3.0-truck': run030Truck,
  'run-0.3.0-rig': run030Rig,
  'run-0.3.0-numbers': run030Numbers,
  'run-0.4.0-truck': run040Truck,
  'run-0.4.0-rig': run040Rig,
  'run-0.4.0-numbers': run040Numbers,
  'run-0.6.0-truck': run060Truck,
  'run-0.6.0-rig': run060Rig,
  'run-0.6.0-numbers': run060Numbers,
  'job-0.6.0': job060,
  'visit-0.6.0': visit060,
  'run-0.5.0-truck': run050Truck,
  'run-0.5.0-rig': run050Rig,
  'run-0.5.0-numbers': run050Numbers,
  'job-0.5.0': job050,
  'visit-0.5.0': visit050,
  'job-0.4.0': job040,
  'visit-0.3.0': visit030,
  'visit-0.4.0': visit040,
}).map(([file, golden]) => ({ file, golden: golden as unknown as Golden }));
const plain = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;

describe.each(records)('the record kept as $file', ({ golden }) => {
  it('means today what it meant when it was kept', () => {
    expect(plain(meaningOf(golden.kind, golden).means)).toEqual(golden.means);
  });

  it('has, brought up to date, the shape that is kept today', () => {
    const { header, facts } = upToDate(anyLogKind(golden.kind), golden);
    const problems = [
      check('openLog', plain(header)),
      ...facts.map((fact) => check(`${golden.kind}Fact`, plain(fact))),
    ].flatMap((checked) => (checked.ok ? [] : checked.fields));
    expect(problems).toEqual([]);
  });

  if (golden.coreVersion === CORE_VERSION) {
    // A change that alters this needs a version of its own: raise CORE_VERSION, then `npm run golden`.
    it('is judged as this version judged it when it was written', () => {
      expect(plain(meaningOf(golden.kind, golden).judged)).toEqual(golden.judged);
    });
  }
});

it('holds a record of every kind by this version of the core', () => {
  const kinds = records.flatMap(({ golden }) =>
    golden.coreVersion === CORE_VERSION ? [golden.kind] : [],
  );
  expect([...new Set(kinds)].sort()).toEqual([...logKindNames].sort());
});

it('holds a run of before draining was done on the way, whose findings once vanished', () => {
  const old = records.find(({ file }) => file === 'run-0.2.0-drain-apart-truck');
  const { findings } = old?.golden.means as { findings: { key: string; said: string }[] };
  expect(findings).toContainEqual(expect.objectContaining({ key: 'water', said: 'milky' }));
});

it('refuses what a later version kept, and what no migration knows', () => {
  const { golden } = records[0]!;
  expect(() =>
    upToDate(anyLogKind('run'), { ...golden, header: { ...golden.header, v: 99 } }),
  ).toThrow('newer than this program');
  expect(() =>
    upToDate({ name: 'run', version: 3, upcast: {} }, { header: { id: 'x', v: 2 }, facts: [] }),
  ).toThrow('no migration');
});
