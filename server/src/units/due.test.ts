import type { DrainRows, Unit } from '@keen-bleed/contract';
import {
  addUnit,
  laneOf,
  makeStaff,
  openTestShop,
  runHeader,
  truckDraft,
  wholeRun,
  type Staff,
  type TestShop,
} from '../test/testShop';

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
/** Days from one test to the next. */
const EVERY_DAYS = 30;

/** All but the clock's time of day. */
const TIMERS = [
  'hrtime',
  'nextTick',
  'performance',
  'queueMicrotask',
  'setImmediate',
  'clearImmediate',
  'setInterval',
  'clearInterval',
  'setTimeout',
  'clearTimeout',
] as const;

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  // The day must not turn between what is written and what is expected; timers go on as they are.
  jest.useFakeTimers({ now: Date.now(), doNotFake: [...TIMERS] });
  shop = await openTestShop();
  staff = await makeStaff(shop, 'due');
});
afterAll(async () => {
  jest.useRealTimers();
  await shop.close();
});

const add = (number: string): Promise<Unit> =>
  addUnit(staff.lead, truckDraft(number, { testEveryDays: EVERY_DAYS }));

/** Noon (UTC) some days ago: a run that begins there ends on the same day, whenever these tests run. */
const noon = (daysAgo: number) => Math.floor(Date.now() / DAY_MS - daysAgo) * DAY_MS + 12 * HOUR_MS;

/** Has a unit tested some days ago: whole, with a leak that fails, or broken off. */
async function tested(unit: Unit, daysAgo: number, how: 'passes' | 'fails' | 'broken off') {
  const startMs = noon(daysAgo);
  const header = { ...runHeader(unit), startedAtMs: startMs };
  await staff.technician.post('/api/logs').send(header).expect(201);
  const facts =
    how === 'broken off'
      ? laneOf([[60, { kind: 'close', how: 'incomplete', reason: 'Called away' }]], { startMs })
      : wholeRun(how === 'fails' ? 6 : 1, { startMs });
  await staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts }).expect(200);
}

interface Event {
  summary: string;
  day: string;
  description: string;
}

/** The events of a calendar file, its folded lines (RFC 5545, 3.1) joined again. */
async function calendar(): Promise<Map<string, Event>> {
  const { text } = await staff.viewer.get('/api/due.ics').expect(200);
  const events = text
    .replace(/\r\n[ \t]/g, '')
    .split('BEGIN:VEVENT')
    .slice(1)
    .map((event) => {
      const field = (name: string) => new RegExp(`^${name}[^:]*:(.*)$`, 'm').exec(event)?.[1] ?? '';
      return {
        summary: field('SUMMARY').trim(),
        day: field('DTSTART').trim(),
        description: field('DESCRIPTION').trim(),
      };
    });
  return new Map(events.map((event) => [event.summary.replace(/^[^:]*: /, ''), event]));
}

const dayOf = (atMs: number) => new Date(atMs).toISOString().slice(0, 10).replaceAll('-', '');

describe('the calendar of what is due', () => {
  it('has a unit where its last whole test puts it, and one that was never tested today', async () => {
    await tested(await add('1'), 10, 'passes');
    await add('2');
    await tested(await add('3'), 60, 'passes');
    const events = await calendar();
    expect(events.get('Tipper 1')).toMatchObject({
      summary: 'Brake test: Tipper 1',
      day: dayOf(Date.now() + 20 * DAY_MS),
    });
    expect(events.get('Tipper 2')).toMatchObject({
      day: dayOf(Date.now()),
      description: 'No run yet.',
    });
    expect(events.get('Tipper 3')?.day).toBe(dayOf(Date.now()));
  });

  it('does not take a run that was broken off for a test', async () => {
    await tested(await add('4'), 1, 'broken off');
    const broken = await add('5');
    await tested(broken, 20, 'passes');
    await tested(broken, 1, 'broken off');
    const events = await calendar();
    expect(events.get('Tipper 4')?.day).toBe(dayOf(Date.now()));
    expect(events.get('Tipper 5')?.day).toBe(dayOf(Date.now() + 10 * DAY_MS));
  });

  it('has a retest owed today, whenever the next test would be', async () => {
    await tested(await add('6'), 2, 'fails');
    const owed = (await calendar()).get('Tipper 6');
    expect(owed?.summary).toMatch(/^(Retest owed|OUT OF SERVICE): /);
    expect(owed?.day).toBe(dayOf(Date.now()));
    expect(owed?.description).toContain('Static leak');
  });

  it('says nothing of a unit that is retired, and has it in no list of tanks to drain', async () => {
    const unit = await add('7');
    const drains = async () =>
      ((await staff.viewer.get('/api/drains')).body as DrainRows).map(({ unitId }) => unitId);
    expect((await calendar()).has('Tipper 7')).toBe(true);
    expect(await drains()).toContain(unit.id);
    const before = /(\d+) units/.exec([...(await calendar()).keys()].join())?.[1];
    await staff.lead.post(`/api/units/${unit.id}/retire`).send({ retired: true }).expect(200);
    const events = await calendar();
    expect(events.has('Tipper 7')).toBe(false);
    expect(await drains()).not.toContain(unit.id);
    const after = /(\d+) units/.exec([...events.keys()].join())?.[1];
    expect(Number(before) - Number(after)).toBe(1);
    await staff.lead.post(`/api/units/${unit.id}/retire`).send({ retired: false }).expect(200);
    expect((await calendar()).has('Tipper 7')).toBe(true);
  });

  it('names twenty of the tanks to drain and says how many more, for whole days', async () => {
    const before = (await calendar()).size;
    for (let n = 0; n < 25; n += 1) await add(`9${String(n).padStart(2, '0')}`);
    const { text } = await staff.viewer.get('/api/due.ics').expect(200);
    const drains = [...(await calendar()).values()].find(({ summary }) =>
      summary.startsWith('Drain'),
    );
    const units = Number(/(\d+) units/.exec(drains?.summary ?? '')?.[1]);
    expect(units).toBeGreaterThanOrEqual(25);
    // A line's end stands as \n in a text (RFC 5545, 3.3.11).
    const lines = drains?.description.split('\\n') ?? [];
    expect(lines).toHaveLength(21);
    expect(lines.at(-1)).toBe(`and ${units - 20} more`);
    expect((await calendar()).size).toBe(before + 25);
    // A date alone takes the whole day (RFC 5545, 3.6.1).
    const starts = text.match(/^DTSTART.*$/gm) ?? [];
    expect(starts.filter((line) => !line.startsWith('DTSTART;VALUE=DATE:'))).toEqual([]);
  });
});
