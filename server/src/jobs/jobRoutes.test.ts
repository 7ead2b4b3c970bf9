import { v7 as uuidv7 } from 'uuid';
import { failedTrucks } from '../test/failedTrucks';
import {
  addUnit,
  makeStaff,
  openTestShop,
  truckDraft,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'out');
});
afterAll(() => shop.close());
const { failedTruck } = failedTrucks(() => staff);

it('goes out under a name that every file system takes: its units and its day', async () => {
  const unit = await addUnit(staff.lead, truckDraft('7/B 2'));
  const { header } = await failedTruck();
  const job = {
    ...header,
    id: uuidv7(),
    startedAtMs: Date.UTC(2026, 10, 3, 23, 30),
    subject: { ...header.subject, unitId: unit.id },
    made: {
      ...header.made,
      units: [unit],
      foundOn: [unit.id],
      bornOf: { kind: 'hand' },
      failures: [],
    },
  };
  await staff.technician.post('/api/logs').send(job).expect(201);
  const nameOf = async (what: string) =>
    /filename="?([^";]+)/.exec(
      String(
        (await staff.viewer.get(`/api/jobs/${job.id}/${what}`).expect(200)).headers[
          'content-disposition'
        ],
      ),
    )?.[1];
  expect(await nameOf('export.json')).toBe('job-7_B_2-2026-11-03.json');
});
