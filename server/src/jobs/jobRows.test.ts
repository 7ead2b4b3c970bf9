import type { JobRow } from '@keen-bleed/contract';
import { failedTrucks } from '../test/failedTrucks';
import { makeStaff, openTestShop, type Staff, type TestShop } from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'rows');
});
afterAll(() => shop.close());
const { failedTruck } = failedTrucks(() => staff);

it('lists what holds a vehicle first, and the oldest of either first', async () => {
  const made = [await failedTruck(), await failedTruck(), await failedTruck()];
  const byHand = async (startedAtMs: number) => {
    const { header } = made[0]!;
    const free = {
      ...header,
      id: crypto.randomUUID(),
      startedAtMs,
      made: { ...header.made, bornOf: { kind: 'hand' }, failures: [], found: 'Wiper squeaks' },
    };
    await staff.technician.post('/api/logs').send(free).expect(201);
    return free.id;
  };
  const nowMs = Date.now();
  const later = await byHand(nowMs - 3_600_000);
  const earlier = await byHand(nowMs - 90_000_000);
  const rows = (await staff.viewer.get('/api/jobs').expect(200)).body as JobRow[];
  const holding = rows.filter(({ holds }) => holds.length > 0).map(({ id }) => id);
  expect(holding).toHaveLength(3);
  expect(rows.map(({ id }) => id)).toEqual([...holding, earlier, later]);
  const opened = rows.slice(0, 3).map(({ openedMs }) => openedMs);
  expect(opened).toEqual([...opened].sort((a, b) => a - b));
});
