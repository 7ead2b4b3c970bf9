import { jobHeader, JobWriter } from '../../../test/jobWriter';
import { testUnit } from '../../../test/walk';

const unit = testUnit();
const at = { unitId: unit.id, partId: 'primary-drain' };
const fitted = { kind: 'fitted', at, repair: 'replaced', was: {}, now: {} } as const;
const note = { kind: 'note', text: 'tea' } as const;

describe('a day in a job', () => {
  it('is one that there is', () => {
    const job = new JobWriter(jobHeader([unit]));
    for (const [day, is] of [
      ['2026-11-30', true],
      ['2028-02-29', true],
      ['2026-02-30', false],
      ['2026-02-29', false],
      ['2026-13-01', false],
      ['2026-11-32', false],
    ] as const) {
      const said = is ? null : 'Give a day there is, such as 2026-11-30.';
      expect(job.tries({ kind: 'wanted-by', day } as never, 9)).toBe(said);
      expect(job.tries({ kind: 'waiting', text: 'a relay', until: day } as never, 9)).toBe(said);
    }
    expect(job.tries({ kind: 'waiting', text: 'a relay' } as never, 9)).toBeNull();
  });
});

describe('what is taken back in a job', () => {
  it('is a part that was fitted, or a measure, straight away and no later', () => {
    const measure = { kind: 'measure', measure: 'capped-line', at: null, text: 'park' } as const;
    for (const [said, words] of [
      [fitted, /Say what was fitted since/],
      [measure, /Say that it was undone/],
    ] as const) {
      const atOnce = new JobWriter(jobHeader([unit]));
      const slip = atOnce.tell(said);
      expect(atOnce.tries({ kind: 'retract', target: slip.id }, 10)).toBeNull();
      const later = new JobWriter(jobHeader([unit]));
      const old = later.tell(said);
      later.tell(note);
      expect(later.tries({ kind: 'retract', target: old.id }, 10)).toMatch(words);
    }
  });

  it('is a note whenever, and a retest never', () => {
    const job = new JobWriter(jobHeader([unit]));
    const said = job.tell(note);
    job.tell(fitted);
    const owedId = job.state.owed[0]!.id;
    const retested = job.tell({
      ...{ kind: 'retested', owedId, logId: '00000000-0000-7000-8000-0000000000fe' },
      ...{ verdict: 'pass', said: 'quiet', readings: [] },
    } as never);
    expect(job.tries({ kind: 'retract', target: said.id }, 20)).toBeNull();
    expect(job.tries({ kind: 'retract', target: retested.id }, 20)).toMatch(/make it again/);
  });

  it('is corrected only by an entry of its own kind', () => {
    const job = new JobWriter(jobHeader([unit]));
    const said = job.tell(note);
    const proven = { kind: 'proven', at, text: 'leaks', by: 'Soap' } as const;
    expect(job.tries({ ...proven, supersedes: said.id }, 10)).toMatch(
      /The entry to correct is not there/,
    );
    const first = job.tell(proven);
    expect(job.tries({ ...proven, text: 'cracked', supersedes: first.id }, 10)).toBeNull();
  });
});
