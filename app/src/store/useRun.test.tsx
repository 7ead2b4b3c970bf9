import 'fake-indexeddb/auto';
import type { OpenRun } from '@keen-bleed/contract';
import { roadTest } from '@keen-bleed/core';
import { useLayoutEffect } from 'react';
import { madeUpUnit } from '../test/madeUpUnit';
import { doing, onPage } from '../test/onPage';
import { keepRun, keptEvents, unsentEvents } from './deviceStore';
import { useRun, type LiveRun, type NewFact } from './useRun';

globalThis.structuredClone ??= (value: unknown) => JSON.parse(JSON.stringify(value)) as never;
globalThis.fetch = () => Promise.reject(new TypeError('no network here'));

const unit = madeUpUnit('truck', { id: 'u' });
const mark = (key: string, readingPsi: number): NewFact => ({
  kind: 'mark',
  stepId: 'build-up',
  key,
  readingPsi,
  resolutionPsi: 1,
  method: 'crossing',
});
const ready: NewFact = { kind: 'ready', stepId: 'prepare', gauge: 'primary' };

let seen: ReturnType<typeof useRun>;
const look = (at: ReturnType<typeof useRun>) => {
  seen = at;
};
function Watch({ id }: { id: string }) {
  const run = useRun(id);
  useLayoutEffect(() => look(run));
  return null;
}
const live = (): LiveRun => {
  if (seen === 'loading' || seen === 'elsewhere') throw new Error(`the run is ${seen}`);
  return seen;
};

async function opened(id: string) {
  const header: OpenRun = {
    id,
    unitId: 'u',
    rigId: null,
    startedAtMs: 0,
    unit,
    towed: [],
    ruleSet: roadTest,
    leftOut: ['drain'],
  };
  await keepRun({
    id,
    shopId: 's',
    personId: 'p',
    header,
    opened: false,
    closed: false,
    refused: null,
  });
  const page = await onPage(<Watch id={id} />);
  await loaded();
  return page;
}

/** Lets the store answer; its answers come in turns of the event loop, as many as there are questions. */
async function loaded(): Promise<void> {
  for (let turn = 0; turn < 200 && seen === 'loading'; turn += 1) {
    await doing(() => new Promise<void>((resolve) => setTimeout(resolve, 0)));
  }
}

describe('a run on this device', () => {
  it('has each fact in the store before it is said to be kept', async () => {
    const page = await opened('r1');
    let problem: string | null = 'not yet';
    await doing(async () => {
      problem = await live().record(ready);
      expect(await keptEvents('r1')).toHaveLength(1);
    });
    expect(problem).toBeNull();
    expect(live().state.step?.id).toBe('build-up');
    expect(await unsentEvents('r1')).toHaveLength(1);
    await page.leave();
  });

  it('is where it was after the page was closed and opened again', async () => {
    const first = await opened('r2');
    await doing(() => live().record(ready));
    await doing(() => live().record(mark('from', 85)));
    await first.leave();
    seen = 'loading';
    const again = await onPage(<Watch id="r2" />);
    await loaded();
    expect(live().state.awaited?.key).toBe('to');
    expect(live().state.marks).toMatchObject([{ key: 'from', readingPsi: 85 }]);
    await again.leave();
  });

  it('refuses a reading off the gauge in words, and keeps nothing of it', async () => {
    const page = await opened('r3');
    await doing(() => live().record(ready));
    let problem: string | null = null;
    await doing(async () => {
      problem = await live().record(mark('from', 9999));
    });
    expect(problem).toContain('off the gauge');
    expect(await keptEvents('r3')).toHaveLength(1);
    await page.leave();
  });

  it('puts two facts pressed at once in their order, each in a place of its own', async () => {
    const page = await opened('r4');
    await doing(() => live().record(ready));
    const { record } = live();
    await doing(() => Promise.all([record(mark('from', 85)), record(mark('to', 100))]));
    expect((await keptEvents('r4')).map((event) => event.seq)).toEqual([1, 2, 3]);
    expect(live().state.step?.id).toBe('cut-out');
    await page.leave();
  });

  it('goes on after a fact that was refused', async () => {
    const page = await opened('r5');
    await doing(() => live().record(ready));
    await doing(() => live().record(mark('nonsense', 85)));
    await doing(() => live().record(mark('from', 85)));
    expect(live().state.marks).toHaveLength(1);
    await page.leave();
  });

  it('is elsewhere where this device never had it', async () => {
    seen = 'loading';
    const page = await onPage(<Watch id="somebody-else’s" />);
    await loaded();
    expect(seen).toBe('elsewhere');
    await page.leave();
  });
});
