import { linearRegression } from 'simple-statistics';
import { roadTest } from '../standards/roadTest';
import { seededNumbers } from '../test/seededNumbers';
import { testUnit } from '../test/walk';
import { stateOfRun } from '../run/stateOfRun';
import { testHeader } from '../test/walk';
import { outcomeOf } from '../reading/outcomeOf';
import type { RunFact } from '@keen-bleed/contract';
import { Twin } from '../twin/twin';
import { factsOf } from './factsOf';
import { forDrawing } from './forDrawing';
import { columnHead, columnHeads, readMoment, readNumber, TraceReader } from './readTable';
import { purgesOf } from './purges';
import { lineThrough, segmentsOf, type Trace } from './segments';

const unit = testUnit();

/** A truck's primary tank through a test, recorded ten times a second, with a known leak in the holds. */
function recorded(): { tank: Trace; dryer: Trace } {
  const twin = new Twin({ unit, towed: [] }, { tanksPsi: 80 });
  twin.leak('primary tank', 2e-11);
  twin.dash('park valve', true);
  twin.advanceTo(20);
  const seconds: number[] = [];
  const psi: number[] = [];
  const dryer: number[] = [];
  const to = (untilS: number) => {
    for (let s = seconds.length / 10; s < untilS; s = seconds.length / 10) {
      twin.advanceTo(20 + s);
      seconds.push(s);
      psi.push(twin.psi('primary tank'));
      dryer.push(twin.psi('dryer'));
    }
  };
  to(5);
  twin.engine(2100);
  to(140);
  twin.engine(650);
  // Fanned slowly, until the governor cuts in.
  for (let n = 0; twin.isHigh('governor'); n += 1) {
    twin.ask('pedal', 60);
    to(142 + 8 * n);
    twin.ask('pedal', 0);
    to(148 + 8 * n);
  }
  to(200);
  twin.engine(2100);
  to(260);
  twin.engine(0);
  to(520);
  twin.ask('pedal', 150);
  to(620);
  twin.ask('pedal', 0);
  to(625);
  for (let n = 0; n < 20; n += 1) {
    twin.ask('pedal', 150);
    to(627 + 4 * n);
    twin.ask('pedal', 0);
    to(629 + 4 * n);
  }
  const times = Float64Array.from(seconds);
  return {
    tank: { seconds: times, psi: Float64Array.from(psi) },
    dryer: { seconds: times, psi: Float64Array.from(dryer) },
  };
}
const { tank: trace, dryer } = recorded();
const segments = segmentsOf(trace);
const of = (kind: string) => segments.filter((each) => each.kind === kind);

describe('the segments of a recorded test', () => {
  it('are its climbs, cut-out, cut-in, holds, applications and fall', () => {
    expect(of('build-up').length).toBeGreaterThanOrEqual(2);
    expect(of('cut-out')[0]?.fromPsi).toBeGreaterThan(122);
    expect(of('cut-out')[0]?.fromPsi).toBeLessThan(127);
    expect(of('cut-in')[0]?.fromPsi).toBeLessThan(102);
    expect(of('hold').filter((each) => each.toS - each.fromS > 60).length).toBeGreaterThanOrEqual(
      2,
    );
    expect(of('application').length).toBeGreaterThanOrEqual(15);
    expect(of('fall')).toHaveLength(1);
    expect(of('gap')).toHaveLength(0);
  });

  it('are its purges too, where a column of the dryer was recorded', () => {
    const purges = purgesOf([dryer], segments);
    expect(purges).toHaveLength(of('cut-out').length);
    const [first] = purges;
    const [cutOut] = of('cut-out');
    expect(Math.abs((first?.fromS ?? NaN) - (cutOut?.fromS ?? NaN))).toBeLessThan(4);
    // Most of a purge is over in some seconds, all of it in about 25 [trade]; the line is empty by then.
    expect((first?.toS ?? NaN) - (first?.fromS ?? NaN)).toBeLessThan(35);
    expect(first?.toPsi).toBeLessThan(8);
    // The tank itself shows none, nor does a column with nothing in it.
    expect(purgesOf([trace], segments)).toEqual([]);
    const empty = { ...trace, psi: new Float64Array(trace.psi.length).fill(NaN) };
    expect(purgesOf([empty], segments)).toEqual([]);
  });

  it('show where nothing was recorded', () => {
    const keep = Array.from(trace.seconds.keys()).filter((i) => {
      const s = trace.seconds[i] ?? 0;
      return s < 300 || s > 330;
    });
    const torn = {
      seconds: Float64Array.from(keep, (i) => trace.seconds[i] ?? 0),
      psi: Float64Array.from(keep, (i) => trace.psi[i] ?? 0),
    };
    const [gap] = segmentsOf(torn).filter((each) => each.kind === 'gap');
    expect(gap?.fromS).toBeCloseTo(300, 0);
    expect(gap?.toS).toBeCloseTo(330, 0);
  });

  it('are found through half a psi of noise, through the steps of an eight-bit logger, and past spikes', () => {
    const random = seededNumbers(8);
    const changed = (change: (psi: number, n: number) => number): Trace => ({
      seconds: trace.seconds,
      psi: trace.psi.map(change),
    });
    const long = (found: Trace) =>
      segmentsOf(found).filter((each) => each.kind === 'hold' && each.toS - each.fromS > 60).length;
    const clean = long(trace);
    expect(clean).toBeGreaterThanOrEqual(2);
    expect(long(changed((psi) => psi + 0.5 * random.normal()))).toBeGreaterThanOrEqual(clean);
    expect(long(changed((psi) => Math.round(psi)))).toBeGreaterThanOrEqual(clean);
    expect(long(changed((psi, n) => (n % 700 === 350 ? 0 : psi)))).toBeGreaterThanOrEqual(clean);
  });

  it('of next to nothing are none', () => {
    expect(segmentsOf({ seconds: new Float64Array(3), psi: new Float64Array(3) })).toEqual([]);
  });
});

describe('a hold in a trace', () => {
  const header = testHeader({ unit, towed: [], ruleSet: roadTest, leftOut: ['drain'] });
  const factsUntil = (untilS: number) => {
    const last = trace.seconds.findIndex((s) => s > untilS);
    const cut = { seconds: trace.seconds.slice(0, last), psi: trace.psi.slice(0, last) };
    return factsOf(header, cut, segmentsOf(cut), 1_760_000_000_000);
  };

  it('that is too short is reported as that, and no other stretch stands in for it', () => {
    const [held] = of('hold').filter((each) => each.fromS > 200);
    if (!held) throw new Error('no hold');
    const short = factsUntil(held.fromS + 60);
    const own = short.filter((fact) => 'stepId' in fact && fact.stepId === 'static-hold');
    expect(own.some((fact) => fact.kind === 'mark' && fact.key === 'end')).toBe(true);
    expect(own.some((fact) => fact.kind === 'hold-over')).toBe(false);
    // Eight readings at most, evenly through it, and its two ends.
    const marks = own.filter((fact) => fact.kind === 'mark');
    expect(marks.length).toBeGreaterThanOrEqual(8);
    expect(marks.length).toBeLessThanOrEqual(10);
  });

  it('that lasted less than twenty seconds is none', () => {
    const [held] = of('hold').filter((each) => each.fromS > 200);
    if (!held) throw new Error('no hold');
    const level = { ...held, toS: held.fromS + 15 };
    const facts = factsOf(header, trace, [level], 1_760_000_000_000);
    const own = facts.filter((fact) => 'stepId' in fact && fact.stepId === 'static-hold');
    expect(own.map(({ kind }) => kind)).toEqual(['skip']);
    const longer = factsOf(header, trace, [{ ...held, toS: held.fromS + 45 }], 1_760_000_000_000);
    expect(
      longer.some((f) => f.kind === 'mark' && f.stepId === 'static-hold' && f.key === 'end'),
    ).toBe(true);
  });

  it('far from where the needle stood at cut-out is another’s', () => {
    const [held] = of('hold').filter((each) => each.fromS > 200);
    if (!held) throw new Error('no hold');
    // The same recording, but for the hold: a pedal took more from it than a static hold can have lost.
    const under = (psi: number) => ({
      seconds: trace.seconds,
      psi: trace.psi.map((each, n) => (trace.seconds[n]! >= held.fromS ? each - psi : each)),
    });
    const kinds = (psi: number) =>
      factsOf(header, under(psi), [held], 1_760_000_000_000)
        .filter((fact) => 'stepId' in fact && fact.stepId === 'static-hold')
        .map(({ kind }) => kind);
    expect(kinds(0)).toContain('mark');
    expect(kinds(12)).toContain('mark');
    expect(kinds(40)).toEqual(['skip']);
  });
});

describe('an applied hold in a trace', () => {
  it('begins under where the static one ended by what a pedal takes, or is another’s', () => {
    const header = testHeader({ unit, towed: [], ruleSet: roadTest, leftOut: ['drain'] });
    const applied = of('hold').find((each) => each.fromS > 515);
    if (!applied) throw new Error('no applied hold');
    const marksOf = (facts: ReturnType<typeof factsOf>, stepId: string) =>
      facts.flatMap((fact) => (fact.kind === 'mark' && fact.stepId === stepId ? [fact] : []));
    const whole = factsOf(header, trace, segments, 1_760_000_000_000);
    const last = marksOf(whole, 'static-hold').at(-1)?.readingPsi ?? NaN;
    const stands = trace.psi[trace.seconds.findIndex((s) => s >= applied.fromS)] ?? NaN;
    /** The same recording, but the pedal took so much and no more. */
    const tookPsi = (psi: number) => {
      const by = last - psi - stands;
      const changed = {
        seconds: trace.seconds,
        psi: trace.psi.map((each, n) =>
          trace.seconds[n]! >= applied.fromS - 2 ? each + by : each,
        ),
      };
      return marksOf(factsOf(header, changed, segments, 1_760_000_000_000), 'applied-hold').length;
    };
    expect(tookPsi(6)).toBeGreaterThan(2);
    expect(tookPsi(1)).toBe(0);
  });
});

describe('a line through a stretch', () => {
  it('is the least-squares line of a general library', () => {
    const [hold] = of('hold');
    if (!hold) throw new Error('no hold');
    const points = Array.from(trace.seconds.keys())
      .map((i) => [trace.seconds[i] ?? 0, trace.psi[i] ?? 0])
      .filter(([s = 0]) => s >= hold.fromS && s <= hold.toS);
    const line = lineThrough(trace, hold.fromS, hold.toS);
    expect(line?.slope).toBeCloseTo(linearRegression(points).m, 9);
    expect(line?.count).toBe(points.length);
  });
});

describe('a run out of a trace', () => {
  const header = testHeader({ unit, towed: [], ruleSet: roadTest, leftOut: ['drain'] });
  const startedAtMs = 1_760_000_000_000;
  const facts = factsOf(header, trace, segments, startedAtMs);
  const kept = facts.map((fact, i): RunFact => ({
    ...fact,
    id: `00000000-0000-7000-8000-${String(i + 1).padStart(12, '0')}`,
    lane: header.id,
    seq: i + 1,
    offsetMs: null,
    v: 2,
  }));
  const outcome = outcomeOf(stateOfRun(header.made, kept), { ...header.made, sayIn: 'psi' });
  const figure = (id: string) => outcome.figures.find((each) => each.id === id);

  it('has its build-up, cut-out and cut-in at their times', () => {
    expect(figure('build-up-time')?.value).toBeGreaterThan(6);
    expect(figure('build-up-time')?.value).toBeLessThan(30);
    expect(figure('cut-out')?.value).toBeGreaterThan(122);
    expect(figure('cut-in')?.value).toBeLessThan(102);
    for (const [i, fact] of facts.entries()) {
      expect(fact.atMs).toBeGreaterThanOrEqual(facts[i - 1]?.atMs ?? startedAtMs);
    }
  });

  it('has the leak that the twin was given', () => {
    // Choked flow of 2·10⁻¹¹ m³/(s·Pa) out of both circuits’ air at 120 psi, isothermal.
    const leak = figure('static-leak')?.value ?? NaN;
    expect(leak).toBeGreaterThan(0.1);
    expect(leak).toBeLessThan(1.5);
  });

  it('says of each step that does not show in a pressure that it is not in the trace', () => {
    const skipped = facts.flatMap((fact) => (fact.kind === 'skip' ? [fact.stepId] : []));
    expect(skipped).toContain('warning');
    expect(skipped).toContain('pop-out');
    expect(skipped).not.toContain('cut-out');
  });
});

describe('a table of readings', () => {
  it('tells its units where its heads do', () => {
    expect(columnHead('Primary (kPa)')).toEqual({ title: 'Primary (kPa)', unit: 'kPa' });
    expect(columnHead('time_s').unit).toBe('s');
    expect(columnHead('Tank 21 [bar]').unit).toBe('bar');
    expect(columnHead('channel 1').unit).toBeNull();
  });

  it.each([
    ['s', 's'],
    ['sec', 's'],
    ['Elapsed secs', 's'],
    ['Seconds', 's'],
    ['Time (ms)', 'ms'],
    ['millis', 'ms'],
    ['milliseconds', 'ms'],
    ['Minutes', 'min'],
    ['min', 'min'],
    // The circuit is no time.
    ['Secondary', null],
    ['Secondary tank', null],
    ['Section', null],
    ['Secondary (psi)', 'psi'],
    ['minimum', null],
    ['Barometer', null],
  ])('takes “%s” for %s', (title, unit) => {
    expect(columnHead(title).unit).toBe(unit);
  });

  it('gives each column a title of its own', () => {
    expect(columnHeads(['time_s', 'Tank (psi)', '', 'Tank (psi)'])).toEqual([
      { title: 'time_s', unit: 's' },
      { title: 'Tank (psi) · 2', unit: 'psi' },
      { title: 'column 3', unit: null },
      { title: 'Tank (psi) · 4', unit: 'psi' },
    ]);
  });

  it('takes no pressure that cannot be: what a logger writes for a lost sensor is left out', () => {
    const reader = new TraceReader('s', ['psi', 'bar']);
    reader.add('0', ['100', '7']);
    reader.add('1', ['9999', '7']);
    reader.add('2', ['-999', '7']);
    reader.add('3', ['99', '999']);
    const [main, other] = reader.traces();
    expect([...(main?.psi ?? [])]).toEqual([100, 99]);
    expect(other?.psi[1]).toBeNaN();
    expect(reader.leftOut).toBe(2);
    // A little under nothing is a sensor's own error; more is none of ours, nor is more than any brake holds.
    const near = new TraceReader('s', ['psi', 'psi']);
    for (const [n, psi] of ['-5', '-5.1', '300', '300.1'].entries())
      near.add(String(n), [psi, '0']);
    expect([...(near.traces()[0]?.psi ?? [])]).toEqual([-5, 300]);
  });

  it('goes on past midnight where it has the time of day alone, and a clock that is set back is left out', () => {
    const reader = new TraceReader('s', ['psi']);
    const times = ['23:59:58', '23:59:59', '00:00:01', '0:00:02', '23:00:00'];
    for (const time of times) reader.add(time, ['100']);
    // An hour back is no midnight.
    expect([...(reader.traces()[0]?.seconds ?? [])]).toEqual([0, 1, 3, 4]);
    expect(reader.leftOut).toBe(1);
    const set = new TraceReader('s', ['psi']);
    for (const time of ['12:00:00', '12:00:05', '11:59:00', '12:00:06']) set.add(time, ['100']);
    expect([...(set.traces()[0]?.seconds ?? [])]).toEqual([0, 5, 6]);
    expect(set.leftOut).toBe(1);
    // A shift that began in the morning: it is not yet back at its start when midnight comes.
    const long = new TraceReader('s', ['psi']);
    for (const time of ['10:00:00', '23:59:30', '00:00:30']) long.add(time, ['100']);
    expect([...(long.traces()[0]?.seconds ?? [])]).toEqual([0, 50_370, 50_430]);
    // Plain seconds have no midnight.
    const plain = new TraceReader('s', ['psi']);
    for (const time of ['86399', '1', '86400']) plain.add(time, ['100']);
    expect([...(plain.traces()[0]?.seconds ?? [])]).toEqual([0, 1]);
  });

  it('is read with points or commas, in numbers or in dates, and counts what it cannot read', () => {
    expect(readNumber(' 8,25 ')).toBe(8.25);
    expect(readNumber('n/a')).toBeNaN();
    expect(
      readMoment('2026-11-24 07:00:01.5', 's') - readMoment('2026-11-24T07:00:00Z', 's'),
    ).toBeCloseTo(1.5, 6);
    const reader = new TraceReader('ms', ['bar', 'psi']);
    reader.add('1000', ['8,0', '90']);
    reader.add('1500', ['x', '91']);
    reader.add('900', ['8.1', '92']);
    reader.add('2000', ['8.1']);
    const [main, other] = reader.traces();
    expect([...(main?.seconds ?? [])]).toEqual([0, 1]);
    expect(main?.psi[0]).toBeCloseTo(116.03, 2);
    // A row that one column leaves out is kept for the one that counts.
    expect([...(other?.psi ?? [])]).toEqual([90, NaN]);
    expect(reader.leftOut).toBe(2);
  });
});

describe('a trace for a drawing', () => {
  it('leaves out what is not a number', () => {
    const seconds = Float64Array.from({ length: 1000 }, (_, i) => i);
    const psi = seconds.map((s) => (s % 2 === 0 ? 100 : NaN));
    const points = forDrawing({ seconds, psi }, 0, 1000, 100);
    expect(points.length).toBeGreaterThan(50);
    expect(points.every((point) => point.psi === 100)).toBe(true);
  });

  it('keeps every spike and stays within two points a column', () => {
    const n = 100_000;
    const seconds = Float64Array.from({ length: n }, (_, i) => i / 100);
    const psi = Float64Array.from({ length: n }, (_, i) => (i === 61_803 ? 149 : 100));
    const points = forDrawing({ seconds, psi }, 0, n / 100, 300);
    expect(points.length).toBeLessThanOrEqual(600);
    expect(Math.max(...points.map((point) => point.psi))).toBe(149);
    for (const [i, point] of points.entries())
      expect(point.s).toBeGreaterThanOrEqual(points[i - 1]?.s ?? 0);
  });

  it('of a part of it has that part evenly, with one reading before and one after', () => {
    const seconds = Float64Array.from({ length: 10_000 }, (_, i) => i / 10);
    const psi = seconds.map((s) => 100 + Math.sin(s));
    const points = forDrawing({ seconds, psi }, 400, 500, 50);
    expect(points.length).toBeGreaterThan(90);
    expect(points.length).toBeLessThanOrEqual(100);
    // The column's lowest or highest need not be its first reading.
    expect(points[0]!.s).toBeGreaterThanOrEqual(399.9);
    expect(points[0]!.s).toBeLessThan(402);
    expect(points.at(-1)!.s).toBeGreaterThan(498);
    expect(points.at(-1)!.s).toBeLessThanOrEqual(500);
    // Two seconds a column: none is left without its two.
    for (let column = 0; column < 50; column += 1) {
      const from = 400 + 2 * column - (column === 0 ? 0.1 : 0);
      const here = points.filter(({ s }) => s >= from && s < 402 + 2 * column);
      expect(here.length).toBeGreaterThanOrEqual(1);
    }
    // Few readings are drawn as they are, from the one before to the one after.
    const few = forDrawing({ seconds, psi }, 400, 402, 50).map(({ s }) => s);
    expect(few[0]).toBeCloseTo(399.9, 9);
    expect(few).toHaveLength(22);
    expect(few.at(-1)).toBeCloseTo(402, 9);
  });
});

describe('a run out of a trace, as it stands', () => {
  const to = (number: number) => number.toFixed(1);

  it.each([
    ['from its beginning', 0, 1],
    ['lower by a fifth', 0, 0.8],
    ['from the middle of its climb', 60, 1],
    ['from after its static hold', 530, 1],
  ])('%s', (_, fromS, times) => {
    const first = trace.seconds.findIndex((s) => s >= fromS);
    const cut = {
      seconds: trace.seconds.slice(first).map((s) => s - fromS),
      psi: trace.psi.slice(first).map((psi) => psi * times),
    };
    const of = segmentsOf(cut);
    expect(
      of
        .map(
          ({ kind, fromS: from, toS, ...rest }) =>
            `${kind} ${to(from)} to ${to(toS)} ${JSON.stringify(rest)}`,
        )
        .join('\n'),
    ).toMatchSnapshot();
    const header = testHeader({ unit, towed: [], ruleSet: roadTest, leftOut: ['drain'] });
    const facts = factsOf(header, cut, of, 1_760_000_000_000);
    expect(facts.map((fact) => JSON.stringify(fact)).join('\n')).toMatchSnapshot();
  });
});

describe('a moment as loggers write it', () => {
  it('is a time of day, to any fraction of a second', () => {
    expect(readMoment('7:00:01', 's')).toBe(25_201);
    expect(readMoment('23:59:59.125', 's')).toBeCloseTo(86_399.125, 9);
    expect(readMoment('07:00:01,75', 's')).toBeCloseTo(25_201.75, 9);
    expect(readMoment(' 07:00:01 ', 's')).toBe(25_201);
    for (const wrong of ['07:00', '7:0:01', '123:00:01', '07:00:1', 'x07:00:01', '07:00:01x'])
      expect([wrong, readMoment(wrong, 's')]).toEqual([wrong, NaN]);
  });

  it('is a number in its unit, or a date in the universal time where it names no zone', () => {
    expect(readMoment('1500', 'ms')).toBe(1.5);
    expect(readMoment('2', 'min')).toBe(120);
    expect(readMoment('2026-11-24 07:00:00', 's')).toBe(Date.UTC(2026, 10, 24, 7) / 1000);
    expect(readMoment('2026-11-24T07:00:00+02:00', 's')).toBe(Date.UTC(2026, 10, 24, 5) / 1000);
  });

  it('is no number with two commas, and one with a sign', () => {
    expect(readNumber('-8,25')).toBe(-8.25);
    expect(readNumber('+8.5')).toBe(8.5);
    expect(readNumber('1,234,5')).toBeNaN();
    expect(readNumber('')).toBeNaN();
    expect(columnHead('  Tank (psi) ').title).toBe('Tank (psi)');
    for (const [head, of] of [
      ['ms', 'ms'],
      ['millis', 'ms'],
      ['minutes', 'min'],
      ['sec', 's'],
      ['kPa', 'kPa'],
    ])
      expect([head, columnHead(head ?? '').unit]).toEqual([head, of]);
  });
});
