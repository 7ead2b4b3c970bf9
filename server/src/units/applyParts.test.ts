import type { Unit } from '@keen-bleed/contract';
import { failedTrucks } from '../test/failedTrucks';
import { makeStaff, openTestShop, type Staff, type TestShop } from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'fit');
});
afterAll(() => shop.close());
const { failedTruck } = failedTrucks(() => staff);

describe('a part that is fitted', () => {
  it('puts back on the unit what came off, where a slip of the thumb fitted another', async () => {
    const { told, at, unit } = await failedTruck();
    const threads = async () =>
      ((await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit).parts
        ?.map(({ partId, thread }) => `${partId} ${thread ?? ''}`)
        .sort();
    const drain = { thread: '1/4 NPT' };
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: drain });
    const other = { ...at, partId: 'secondary-drain' };
    await told({ kind: 'fitted', at: other, repair: 'replaced', was: {}, now: drain });
    const slip = await told({
      ...{ kind: 'fitted', at, repair: 'replaced' },
      ...{ was: drain, now: { thread: 'M22x1.5' }, adapter: '1/4 NPT to M22' },
    });
    expect(await threads()).toEqual(['primary-drain M22x1.5', 'secondary-drain 1/4 NPT']);
    await told({ kind: 'retract', target: slip });
    expect(await threads()).toEqual(['primary-drain 1/4 NPT', 'secondary-drain 1/4 NPT']);
  });
});
