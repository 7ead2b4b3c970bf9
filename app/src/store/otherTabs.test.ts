/** @jest-environment node */
import type * as Tabs from './tabs';

/** A page of the device: the module anew, as each tab loads it. */
function aTab(): typeof Tabs {
  let tab: typeof Tabs | null = null;
  jest.isolateModules(() => {
    // eslint-disable-next-line @typescript-eslint/no-require-imports -- each tab loads its modules anew
    tab = require('./tabs') as typeof Tabs;
  });
  return tab!;
}
/** What a tab hears of a log: the count so far, and the next time it is told. */
function hears(tab: typeof Tabs, logId: string) {
  let times = 0;
  let told: () => void = () => undefined;
  const stop = tab.onLogChanged(logId, () => {
    times += 1;
    told();
  });
  return { count: () => times, next: () => new Promise<void>((done) => (told = done)), stop };
}

describe('several tabs of one device', () => {
  it('hear of a log that another has written in, and the writer does not hear of itself', async () => {
    const [one, two] = [aTab(), aTab()];
    const [own, other, another] = [hears(one, 'a'), hears(two, 'a'), hears(two, 'b')];
    const heard = other.next();
    one.tellOtherTabs('a');
    await heard;
    expect([own.count(), other.count(), another.count()]).toEqual([0, 1, 0]);
  });

  it('hear at once of what changed by another hand than their own, as the others do', async () => {
    const [one, two] = [aTab(), aTab()];
    const [own, beside, other] = [hears(one, 'a'), hears(one, 'a'), hears(two, 'a')];
    const heard = other.next();
    one.tellTabs('a');
    expect([own.count(), beside.count()]).toEqual([1, 1]);
    await heard;
    own.stop();
    const again = other.next();
    one.tellTabs('a');
    expect([own.count(), beside.count()]).toEqual([1, 2]);
    await again;
    beside.stop();
    one.tellTabs('a');
    expect([own.count(), beside.count()]).toEqual([1, 2]);
  });
});
