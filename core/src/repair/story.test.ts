import type { JobFact } from '@keen-bleed/contract';
import { jobHeader } from '../test/jobWriter';
import { unitOf } from '../test/walk';
import { sayJobFact, sayPartData } from './story';
import { measureWords, repairWords } from './words';

const truck = unitOf('truck', '10');
const header = jobHeader([truck]);
const relay = { unitId: truck.id, partId: 'rear-relay' };
const told = (fact: object, unit?: 'psi' | 'kPa' | 'bar') =>
  sayJobFact(header, fact as JobFact, unit);

describe('what is known of a part', () => {
  it('is said in the order of the form, pressures in the unit that is asked for, lengths in mm', () => {
    const data = {
      lengthMm: 412.4,
      thread: '3/8 NPT',
      setPsi: 4,
      number: 'as stamped',
      variant: 'long',
    };
    expect(sayPartData(data, 'psi')).toBe(
      'number as stamped, thread 3/8 NPT, set to 4 psi, kind long, length 412 mm',
    );
    // 4 psi are 27.58 kPa and 0.2758 bar.
    expect(sayPartData({ setPsi: 4 }, 'kPa')).toBe('set to 28 kPa');
    expect(sayPartData({ setPsi: 4 }, 'bar')).toBe('set to 0.28 bar');
    expect(sayPartData({ chamberType: '30', stroke: 'long' }, 'psi')).toBe('type 30, stroke long');
    expect(sayPartData({}, 'psi')).toBe('');
  });
});

describe('the story of a job', () => {
  it('says what was proven, by what, and that the earlier conclusion was wrong', () => {
    const proven = { kind: 'proven', at: relay, text: 'does not let go', by: 'Curve at two ports' };
    expect(told(proven)).toEqual({
      title: 'Proven: Rear relay',
      text: 'does not let go. By Curve at two ports',
    });
    expect(told({ ...proven, because: 'the seal was sound' }).text).toBe(
      'does not let go. By Curve at two ports. The earlier conclusion was wrong: the seal was sound',
    );
  });

  it('says what was chosen and refused, and why it went on all the same', () => {
    const offered = { setPsi: 6 };
    expect(told({ kind: 'chosen', at: relay, repair: 'replaced' })).toEqual({
      title: 'Rear relay to be replaced',
      text: '',
    });
    expect(
      told({
        ...{ kind: 'chosen', at: relay, repair: 'cleaned', offered },
        ...{ adapter: 'elbow', override: 'none else to be had' },
      }).text,
    ).toBe('set to 6 psi. elbow. Does not match, fitted all the same: none else to be had');
    expect(
      told({ kind: 'refused', at: relay, offered, problems: ['Too high', 'Too wide'] }),
    ).toEqual({ title: 'Refused for rear relay', text: 'set to 6 psi. Too high. Too wide' });
  });

  it('says what it waits for, and until when', () => {
    expect(told({ kind: 'waiting', text: 'a relay' }).text).toBe('a relay');
    expect(told({ kind: 'waiting', text: 'a relay', until: '2026-12-01' })).toEqual({
      title: 'Waits for parts',
      text: 'a relay. until 2026-12-01',
    });
  });

  it('says what came off and what went on', () => {
    expect(told({ kind: 'fitted', at: relay, repair: 'reseated', was: {}, now: {} })).toEqual({
      title: 'Rear relay reseated',
      text: '',
    });
    expect(
      told(
        {
          ...{ kind: 'fitted', at: relay, repair: 'replaced', was: { setPsi: 4 } },
          ...{ now: { setPsi: 5 }, orientation: 'exhaust down', adapter: 'elbow', note: 'clean' },
          override: 'cracks late',
        },
        'kPa',
      ).text,
    ).toBe(
      'Was: set to 28 kPa. Now: set to 34 kPa. exhaust down. elbow. clean. Does not match, fitted all the same: cracks late',
    );
  });

  it('says how a retest went, and who took it as passed', () => {
    const retested = { kind: 'retested', said: 'Holds', owedId: 'x', readings: [] };
    expect(told({ ...retested, verdict: 'pass' })).toEqual({
      title: 'Retest passed',
      text: 'Holds',
    });
    expect(told({ ...retested, verdict: 'fail' }).title).toBe('Retest failed');
    expect(told({ ...retested, verdict: 'cant-tell', accepted: 'heard it' })).toEqual({
      title: 'Retest could not be told',
      text: 'Holds. Taken as passed: heard it',
    });
  });

  it('says what was done for a while, and that it was undone', () => {
    expect(
      told({ kind: 'measure', at: relay, measure: 'caged-spring', text: 'right rear' }),
    ).toEqual({
      title: 'Temporary: Spring caged',
      text: 'Rear relay. right rear',
    });
    expect(told({ kind: 'measure', at: null, measure: 'blocked', text: 'kerb side' }).text).toBe(
      'kerb side',
    );
    expect(told({ kind: 'undone' })).toEqual({ title: 'Temporary measure undone', text: '' });
    expect(told({ kind: 'undone', text: 'uncaged' }).text).toBe('uncaged');
  });

  it.each([
    [{ kind: 'owner', name: 'Idris' }, 'Given to Idris', ''],
    [{ kind: 'wanted-by', day: '2026-12-24' }, 'Wanted by 2026-12-24', ''],
    [{ kind: 'wanted-by', day: null }, 'No day wanted by', ''],
    [{ kind: 'note', text: 'Ask the driver' }, 'Note', 'Ask the driver'],
    [{ kind: 'reopened', because: 'leaks again' }, 'Reopened', 'leaks again'],
    [{ kind: 'ask-release' }, 'Release asked for', ''],
    [{ kind: 'released' }, 'Released', ''],
    [{ kind: 'close', because: 'sold' }, 'Closed without repair', 'sold'],
    [{ kind: 'retract', target: 'x' }, '', ''],
  ])('%j is %s', (fact, title, text) => {
    expect(told(fact)).toEqual({ title, text });
  });

  it('calls a part of a unit that it does not know by its id', () => {
    const at = { unitId: 'elsewhere', partId: 'rear-relay' };
    expect(told({ kind: 'chosen', at, repair: 'replaced' }).title).toBe(
      'rear-relay to be replaced',
    );
    const unknown = { unitId: truck.id, partId: 'no-such-part' };
    expect(told({ kind: 'chosen', at: unknown, repair: 'replaced' }).title).toBe(
      'no-such-part to be replaced',
    );
  });

  it('has a word for every repair and a way back from every measure', () => {
    for (const word of Object.values(repairWords)) expect(word).toMatch(/^[a-z]+$/);
    for (const { title, undo } of Object.values(measureWords)) {
      expect(title).toMatch(/^[A-Z]/);
      expect(undo).toMatch(/^[A-Z]/);
    }
  });
});
