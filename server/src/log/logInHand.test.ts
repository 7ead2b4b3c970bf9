import type { LogRecord } from '@keen-bleed/contract';
import { and, eq } from 'drizzle-orm';
import { openDatabase, type Database } from '../db/database';
import { logs } from '../db/schema';
import {
  addTruck,
  laneOf,
  makeStaff,
  openTestShop,
  runHeader,
  signedInAgent,
  testApp,
  type Agent,
  type Staff,
  type TestShop,
} from '../test/testShop';
import { keepInHand, takeInHand } from './logInHand';

let shop: TestShop;
let staff: Staff;
let beside: Database;
/** The same technician at another server on the same database. */
let atOther: Agent;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'inhand');
  beside = openDatabase(shop.url, () => undefined);
  atOther = await signedInAgent(testApp(beside), staff.names.technician);
});
afterAll(async () => {
  await beside.close();
  await shop.close();
});

let number = 600;
async function aRun(): Promise<string> {
  const header = runHeader(await addTruck(staff.lead, String((number += 1))));
  await staff.technician.post('/api/logs').send(header).expect(201);
  return header.id;
}
const notes = (count: number) =>
  laneOf(Array.from({ length: count }, (_, n) => [5, { kind: 'note', text: `n${n}` }]));
const send = (by: Agent, id: string, facts: readonly object[]) =>
  by.post(`/api/logs/${id}/facts`).send({ facts });
const recordOf = async (id: string) =>
  (await staff.viewer.get(`/api/logs/${id}`).expect(200)).body as LogRecord;

describe('a log that a server keeps for its next entry', () => {
  it('is read again once another server has added to it', async () => {
    const id = await aRun();
    const facts = notes(6);
    for (const [n, fact] of facts.entries())
      await send(n % 2 === 0 ? staff.technician : atOther, id, [fact]).expect(200);
    const { facts: kept, chain } = await recordOf(id);
    expect(kept.map((fact) => 'text' in fact && fact.text)).toEqual(facts.map((_, n) => `n${n}`));
    expect(chain).toMatchObject({ brokenAt: null });
  });

  it('is as it was where what came in is not kept after all', async () => {
    const [taken] = notes(1);
    await send(staff.technician, await aRun(), [taken!]).expect(200);
    const id = await aRun();
    const [first, second, third] = notes(3);
    await send(staff.technician, id, [first!]).expect(200);
    // The database alone sees that the second of these is in another record.
    const { id: elsewhere } = taken!;
    await send(staff.technician, id, [second!, { ...third, id: elsewhere }]).expect(409);
    await send(staff.technician, id, [second!, third!]).expect(200);
    const { facts: kept, chain } = await recordOf(id);
    expect(kept.map(({ seq }) => seq)).toEqual([1, 2, 3]);
    expect(chain).toMatchObject({ brokenAt: null });
  });

  it('is still another’s: their lane and their entries are not touched', async () => {
    const id = await aRun();
    const [first, second] = notes(2);
    await send(staff.technician, id, [first!]).expect(200);
    await send(staff.lead, id, [second!]).expect(409);
    const target = first!.id;
    const [back] = laneOf([[60, { kind: 'retract', target } as never]]);
    await send(staff.lead, id, [back!]).expect(403);
    await send(staff.technician, id, [second!]).expect(200);
  });

  it('is the same one only while count and last link are as they were', async () => {
    const id = await aRun();
    await send(staff.technician, id, notes(2)).expect(200);
    const { db } = shop.database;
    const [stored] = await db
      .select()
      .from(logs)
      .where(and(eq(logs.shopId, staff.shopId), eq(logs.id, id)));
    const head = (await recordOf(id)).chain?.head ?? '';
    const take = (count: number, link: string | null) =>
      takeInHand(db, db, { ...stored!, factCount: count }, link);
    const kept = await take(2, head);
    expect(kept.log.facts).toHaveLength(2);
    for (const [count, link, isSame] of [
      [2, head, true],
      [3, head, false],
      [2, 'of another backup', false],
      [2, null, false],
    ] as const) {
      keepInHand(db, stored!, kept);
      expect((await take(count, link)) === kept).toBe(isSame);
    }
    // What is being added to is nobody else’s meanwhile.
    keepInHand(db, stored!, kept);
    await take(2, head);
    expect(await take(2, head)).not.toBe(kept);
  });
});
