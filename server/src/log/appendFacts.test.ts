import {
  addTruck,
  laneOf,
  makeStaff,
  openTestShop,
  runHeader,
  wholeRun,
  type Refusal,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'append');
});
afterAll(() => shop.close());

let number = 700;
/** A technician's run that goes on. */
async function aRun(): Promise<string> {
  const header = runHeader(await addTruck(staff.lead, String((number += 1))));
  await staff.technician.post('/api/logs').send(header).expect(201);
  await staff.technician
    .post(`/api/logs/${header.id}/facts`)
    .send({ facts: wholeRun().slice(0, 2) })
    .expect(200);
  return header.id;
}
const countOf = async (id: string) =>
  ((await staff.viewer.get(`/api/logs/${id}`).expect(200)).body as { facts: unknown[] }).facts
    .length;

const note = { kind: 'note', text: 'Seen on the way' } as const;
const skip = { kind: 'skip', stepId: 'build-up', reason: 'No time' } as const;

describe('entries in another person’s run', () => {
  it('are notes alone, all of a lot or none of it', async () => {
    const id = await aRun();
    const send = (...said: Parameters<typeof laneOf>[0][number][1][]) =>
      staff.lead
        .post(`/api/logs/${id}/facts`)
        .send({ facts: laneOf(said.map((each) => [60, each])) });
    for (const lot of [[skip], [note, skip], [skip, note]]) {
      const refused = await send(...lot);
      expect([refused.status, (refused.body as Refusal).code]).toEqual([403, 'not-allowed']);
    }
    expect(await countOf(id)).toBe(2);
    await send(note, note).expect(200);
    expect(await countOf(id)).toBe(4);
  });

  it('are nobody’s who only reads', async () => {
    const id = await aRun();
    await staff.viewer
      .post(`/api/logs/${id}/facts`)
      .send({ facts: laneOf([[60, note]]) })
      .expect(403);
    expect(await countOf(id)).toBe(2);
  });
});
