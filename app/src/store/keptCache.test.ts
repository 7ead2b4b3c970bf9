/** @jest-environment node */
import 'fake-indexeddb/auto';
import type { Me } from '@keen-bleed/contract';
import { keepByName, keepMe, keptByName } from './kept';
import { dropKeptCache, dropKeptOnDevice, loadKeptCache } from './keptCache';

const me = (personId: string) => ({ personId, shopId: 's', name: 'N', role: 'technician' }) as Me;
const yard = [{ unit: { number: '18' } }];
const key = '/api/v1/yard';

const LONGEST_MS = 10_000;

/** Waits until the device has kept something of a name, or nothing. */
async function kept(is: (value: unknown) => boolean): Promise<void> {
  const untilMs = Date.now() + LONGEST_MS;
  while (!is(await keptByName('last-read'))) {
    if (Date.now() > untilMs) throw new Error('nothing of the kind was kept');
  }
}

describe('what was last read', () => {
  it('is there again for the same person, and for nobody else', async () => {
    await keepMe(me('one'));
    (await loadKeptCache()).set(key, { data: yard });
    await kept((value) => value !== undefined);
    expect((await loadKeptCache()).get(key)?.data).toEqual(yard);
    await keepMe(me('two'));
    expect((await loadKeptCache()).get(key)).toBeUndefined();
  });

  it('is read anew where an earlier version of the app kept it', async () => {
    await keepMe(me('one'));
    await keepByName('last-read', { personId: 'one', entries: [[key, yard]] });
    expect((await loadKeptCache()).get(key)).toBeUndefined();
    await keepByName('last-read', { version: 2, personId: 'one', entries: [[key, yard]] });
    expect((await loadKeptCache()).get(key)).toBeUndefined();
  });

  it('is gone from the device alone where a session ends under an open page', async () => {
    await keepMe(me('one'));
    const cache = await loadKeptCache();
    cache.set(key, { data: yard });
    await dropKeptOnDevice();
    expect(cache.get(key)?.data).toEqual(yard);
    expect(await keptByName('last-read')).toBeUndefined();
  });

  it('is gone from the device and from the page when somebody leaves', async () => {
    await keepMe(me('one'));
    const cache = await loadKeptCache();
    cache.set(key, { data: yard });
    await kept((value) => (value as { personId: string } | undefined)?.personId === 'one');
    cache.set(key, { data: [] });
    await dropKeptCache();
    expect(cache.get(key)).toBeUndefined();
    expect(await keptByName('last-read')).toBeUndefined();
    expect((await loadKeptCache()).get(key)).toBeUndefined();
  });
});
