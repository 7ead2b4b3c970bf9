import { unitOf } from '../test/walk';
import { JobWriter, jobHeader } from '../test/jobWriter';
import { knownOf, mismatches, wantsOf } from './match';

const plain = unitOf('truck', '10');
const read = {
  ...plain,
  parts: [
    {
      partId: 'rear-relay',
      standing: 'fitted' as const,
      setPsi: 4,
      thread: '3/8 NPT',
      foundAtMs: 1,
    },
  ],
};

describe('what a replacement must match', () => {
  it('is the crack pressure of a relay within 1 psi [trade]', () => {
    expect(mismatches(read, 'rear-relay', { setPsi: 5 })).toEqual([]);
    expect(mismatches(read, 'rear-relay', { setPsi: 3 })).toEqual([]);
    expect(mismatches(read, 'rear-relay', { setPsi: 5.5 })).toHaveLength(1);
    expect(mismatches(read, 'rear-relay', { setPsi: 10 })).toEqual([
      'Crack pressure: 10 psi offered, 4 psi ± 1 psi wanted. Axles brake together only where their relays crack alike.',
    ]);
  });

  it('is said in the unit that is asked for', () => {
    const [kPa] = mismatches(read, 'rear-relay', { setPsi: 10 }, { sayIn: 'kPa' });
    expect(kPa).toContain('69 kPa offered, 28 kPa ± 7 kPa wanted');
  });

  it('is the thread, unless an adapter makes it good', () => {
    expect(mismatches(read, 'rear-relay', { thread: 'M16x1.5' })).toHaveLength(1);
    expect(
      mismatches(read, 'rear-relay', { thread: 'M16x1.5' }, { adapter: '3/8 NPT to M16' }),
    ).toEqual([]);
    expect(mismatches(read, 'rear-relay', { thread: '3/8 npt' })).toEqual([]);
  });

  it('is type and stroke of a chamber, and the set point of a governor as the unit is described', () => {
    expect(knownOf(plain, 'governor').setPsi).toBe(plain.governor?.cutOutPsi);
    expect(
      mismatches(plain, 'governor', { setPsi: (plain.governor?.cutOutPsi ?? 0) + 10 }),
    ).toHaveLength(1);
    const type = knownOf(plain, 'rear-chambers.1-left').chamberType;
    expect(type).toBe(plain.chambers.find(({ springBrake }) => springBrake)?.type);
    expect(mismatches(plain, 'rear-chambers.1-left', { chamberType: '16' })).toHaveLength(1);
    expect(mismatches(plain, 'rear-chambers.1-left', { chamberType: type! })).toEqual([]);
  });

  it('is said of nothing that is not known, not even that it is not', () => {
    expect(Object.keys(knownOf(plain, 'primary-drain'))).toEqual([]);
    expect(knownOf(plain, 'no such part')).toStrictEqual({});
    const numbered = { partId: 'primary-drain', standing: 'fitted', number: 'D-1', foundAtMs: 1 };
    const read = { ...plain, parts: [{ ...numbered, thread: '1/4 NPT' }] } as typeof plain;
    expect(knownOf(read, 'primary-drain')).toMatchObject({ number: 'D-1', thread: '1/4 NPT' });
  });

  it('is looked up where nobody has read it off yet', () => {
    expect(
      wantsOf(plain, 'park-control').find(({ field }) => field === 'setPsi')?.value,
    ).toBeNull();
    expect(wantsOf(plain, 'rear-relay').find(({ field }) => field === 'thread')?.value).toBeNull();
    // What is not known is no mismatch: nobody can tell.
    expect(mismatches(plain, 'park-control', { setPsi: 60 })).toEqual([]);
  });
});

describe('a part that does not match', () => {
  const at = { unitId: read.id, partId: 'rear-relay' };
  const ten = { kind: 'chosen', at, repair: 'replaced', offered: { setPsi: 10 } } as const;

  it('is not taken by the log, whichever phone it comes from, unless a reason is written', () => {
    const job = new JobWriter(jobHeader([read]));
    expect(job.tries(ten, 1)).toContain('10 psi offered');
    expect(job.tries({ ...ten, override: 'Both axles get the same' }, 1)).toBeNull();
    expect(
      job.tries({ kind: 'fitted', at, repair: 'replaced', was: {}, now: { setPsi: 10 } }, 1),
    ).toContain('10 psi offered');
    // One that is put right where it sits has nothing to match.
    expect(
      job.tries({ kind: 'fitted', at, repair: 'cleaned', was: {}, now: { setPsi: 10 } }, 1),
    ).toBeNull();
  });

  it('may be kept as refused, so that nobody offers it again', () => {
    const job = new JobWriter(jobHeader([read]));
    job.tell({ kind: 'proven', at, text: 'cracks late', by: 'Curve: cracks at 9 psi' });
    const problems = mismatches(read, at.partId, { setPsi: 10 });
    job.tell({ kind: 'refused', at, offered: { setPsi: 10 }, problems });
    expect(job.state.refused).toHaveLength(1);
    expect(job.state.station).toBe('proven');
  });
});
