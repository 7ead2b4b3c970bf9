import type { LogRecord, Me } from '@keen-bleed/contract';
import fc from 'fast-check';
import { writeFileSync } from 'node:fs';
import { DEFAULT_QUOTAS } from '../../server/src/http/quotas';
import { Phone, putPhonesInPlace, type Mark, type Recorded, type Weather } from './phone';
import { World, type Standing } from './world';

/* Two phones take marks and photos on one unit, through networks and guest networks, in one page and in two, with clocks
   that are set, disks that fill up, pages of an older version, people whose role changes, and a server that has no more
   room, is killed in the middle of its work and is restored from a backup, in an order drawn at random. The phones run the app's own store and outbox, the server is the real one
   over a real PostgreSQL. Whatever happens, in the end each mark that was said to be kept stands at the server once, in
   its place, and nothing waits that the screen has no button for. */

// No screen is drawn here, and loading the library anew at each of a few thousand openings takes its time.
jest.mock('react', () => ({}));

/** The short form; `npm run storm` asks for more, and gives it its time. */
const SEQUENCES = Number(process.env.STORM_SEQUENCES ?? 100);
const MINUTES = Number(process.env.STORM_MINUTES ?? 0);
/** Where a long storm keeps what it came to. */
const OUT = process.env.STORM_OUT;
const SEED = Number(process.env.STORM_SEED ?? Date.now() % 1_000_000);

let world: World;
let cookies: string[] = [];
beforeAll(async () => {
  // Retries of a phone that has died must not go on in the test's own time.
  jest.useFakeTimers({ doNotFake: ALL_BUT_TIMEOUTS });
  world = await World.made();
  const { names } = world.staff;
  cookies = [await world.cookieOf(names.technician), await world.cookieOf(names.lead)];
  putPhonesInPlace();
});
afterAll(async () => {
  globalThis.fetch = world.realFetch;
  await world.end();
}, 60_000);

const ALL_BUT_TIMEOUTS = [
  'Date',
  'hrtime',
  'nextTick',
  'performance',
  'queueMicrotask',
  'setImmediate',
  'clearImmediate',
  'setInterval',
  'clearInterval',
] as const as unknown as ('Date' | 'nextTick')[];

/** Facts by what they say and where they stand; how far a clock was off may be learnt on the way. */
const said = (facts: readonly Mark[]) =>
  [...facts]
    .sort((a, b) => a.seq - b.seq)
    .map(({ id, lane, seq, atMs, kind, ...rest }) => ({
      ...{ id, lane, seq, atMs, kind },
      photos: photosOf([{ kind, ...rest } as Mark]),
    }));
const photosOf = (facts: readonly Mark[]) =>
  facts.flatMap((fact) => ('photos' in fact ? (fact.photos ?? []) : []));

type Step =
  | { do: 'take' | 'photo' | 'send' | 'send-and-die' | 'reload' | 'second-page' | 'echo' }
  | { do: 'server-down' | 'server-up' }
  | { do: 'weather'; weather: Weather }
  | { do: 'clock'; hours: number }
  | { do: 'disk'; isFull: boolean }
  | { do: 'quota'; isFull: boolean }
  | { do: 'killed-while-sending'; afterMs: number }
  | { do: 'old-page' }
  | { do: 'person'; standing: Standing }
  | { do: 'restore'; upTo: number | null };

const records = fc.tuple(...[0, 1].map(() => fc.constantFrom<Recorded>('run', 'visit')));

const always = <D extends Step['do']>(name: D) => fc.constant({ do: name } as Step);
const weathers: Weather[] = [
  ...(['clear', 'clear', 'gone', 'answer-lost', 'doubled', 'echo-later'] as const),
  ...(['portal-page', 'portal-json', 'no-upstream'] as const),
];
const steps = fc.tuple(
  fc.constantFrom(0, 1),
  fc.oneof(
    { weight: 8, arbitrary: always('take') },
    { weight: 3, arbitrary: always('photo') },
    { weight: 5, arbitrary: always('send') },
    { weight: 2, arbitrary: always('send-and-die') },
    { weight: 2, arbitrary: always('reload') },
    { weight: 1, arbitrary: always('second-page') },
    { weight: 1, arbitrary: always('echo') },
    { weight: 1, arbitrary: always('server-down') },
    { weight: 2, arbitrary: always('server-up') },
    { weight: 1, arbitrary: always('old-page') },
    {
      weight: 4,
      arbitrary: fc.constantFrom(...weathers).map<Step>((weather) => ({ do: 'weather', weather })),
    },
    {
      weight: 1,
      arbitrary: fc.integer({ min: -48, max: 48 }).map<Step>((hours) => ({ do: 'clock', hours })),
    },
    {
      weight: 2,
      arbitrary: fc
        .constantFrom(true, false, false)
        .map<Step>((isFull) => ({ do: 'disk', isFull })),
    },
    {
      weight: 1,
      arbitrary: fc
        .constantFrom(true, true, false)
        .map<Step>((isFull) => ({ do: 'quota', isFull })),
    },
    {
      weight: 1,
      arbitrary: fc
        .integer({ min: 0, max: 25 })
        .map<Step>((afterMs) => ({ do: 'killed-while-sending', afterMs })),
    },
    {
      weight: 2,
      arbitrary: fc
        .constantFrom<Standing>('technician', 'lead', 'viewer', 'gone')
        .map<Step>((standing) => ({ do: 'person', standing })),
    },
    {
      weight: 1,
      arbitrary: fc
        .option(fc.nat({ max: 6 }), { freq: 3 })
        .map<Step>((upTo) => ({ do: 'restore', upTo })),
    },
  ),
);

async function perform(phone: Phone, personId: string, step: Step): Promise<void> {
  switch (step.do) {
    case 'take':
      return phone.take();
    case 'photo':
      return phone.take(true);
    case 'send':
      return phone.sendNow();
    case 'send-and-die': {
      // The request is on its way when the phone dies; what comes back is heard by nobody.
      const sending = phone.sendNow();
      await phone.open();
      await sending;
      return;
    }
    case 'reload':
      return phone.open();
    case 'second-page':
      return phone.openTab();
    case 'echo':
      return phone.echo();
    case 'server-down':
      return world.down();
    case 'server-up':
      return world.up();
    case 'weather':
      phone.weather = step.weather;
      return;
    case 'clock':
      phone.setClock(step.hours * 3_600_000);
      return;
    case 'disk':
      phone.isFull = step.isFull;
      return;
    case 'quota':
      world.quotas.photosOfRecord = step.isFull ? 0 : DEFAULT_QUOTAS.photosOfRecord;
      return;
    case 'killed-while-sending':
      await Promise.all([phone.sendNow(), world.kill(step.afterMs)]);
      return world.up();
    case 'old-page':
      phone.isOld = true;
      return;
    case 'person':
      return world.make(personId, step.standing);
    case 'restore':
      return world.restore(phone.logId, step.upTo);
  }
}

/** In the end the sun shines: there is room and right, and every phone is opened once more and sends what it has. */
async function settled(phone: Phone): Promise<void> {
  phone.weather = 'clear';
  phone.isFull = false;
  await phone.open();
  for (let pass = 0; pass < 5; pass += 1) {
    // What is refused still has the way out that its screen names.
    if ((await phone.refused()) !== null) await phone.tryAgain();
    else await phone.sendNow();
  }
  expect(await phone.refused()).toBeNull();
  expect(await phone.waiting()).toBe(0);
}

it(
  'loses nothing and doubles nothing, whatever becomes of phones, people, network and server',
  async () => {
    const { staff, unit } = world;
    const people = [
      { personId: staff.ids.technician, name: staff.names.technician, role: 'technician' as const },
      { personId: staff.ids.lead, name: staff.names.lead, role: 'lead' as const },
    ];
    const seen = new Map<Step['do'], number>();
    let sequences = 0;
    let marks = 0;
    let photos = 0;
    await fc.assert(
      fc.asyncProperty(
        records,
        fc.array(steps, { minLength: 6, maxLength: 30 }),
        async (recorded, sequence) => {
          await world.up();
          Object.assign(world.quotas, DEFAULT_QUOTAS);
          for (const { personId, role } of people) await world.make(personId, role);
          const phones = people.map(
            (person, index) =>
              new Phone(
                world,
                { ...person, shopId: staff.shopId } as Me,
                cookies[index] ?? '',
                recorded[index]!,
              ),
          );
          for (const phone of phones) await phone.as(() => phone.begin());
          for (const [who, step] of sequence) {
            const phone = phones[who]!;
            await phone.as(() => perform(phone, people[who]!.personId, step));
            seen.set(step.do, (seen.get(step.do) ?? 0) + 1);
          }
          await world.up();
          Object.assign(world.quotas, DEFAULT_QUOTAS);
          for (const { personId, role } of people) await world.make(personId, role);
          for (const phone of phones) {
            await phone.as(async () => {
              await settled(phone);
              expect(said(await phone.facts())).toEqual(said(phone.taken));
            });
            const answer = await staff.viewer.get(`/api/logs/${phone.logId}`).expect(200);
            const record = answer.body as LogRecord<Recorded>;
            expect(said(record.facts)).toEqual(said(phone.taken));
            expect(record.header.subject.unitId).toBe(unit.id);
            expect(record.chain?.brokenAt).toBeNull();
            const named = photosOf(phone.taken);
            for (const photo of named) await staff.viewer.get(`/api/photos/${photo}`).expect(200);
            marks += phone.taken.length;
            photos += named.length;
          }
          expect(world.connectionsOut).toBe(0);
          sequences += 1;
        },
      ),
      {
        numRuns: SEQUENCES,
        seed: SEED,
        ...(MINUTES > 0 ? { interruptAfterTimeLimit: MINUTES * 60_000 } : {}),
      },
    );
    if (OUT)
      writeFileSync(
        OUT,
        JSON.stringify({ sequences, marks, photos, drawn: Object.fromEntries(seen) }),
      );
    else expect(sequences).toBeGreaterThanOrEqual(SEQUENCES);
    expect(marks).toBeGreaterThan(sequences);
  },
  Math.max(300_000, (MINUTES + 5) * 60_000),
);
