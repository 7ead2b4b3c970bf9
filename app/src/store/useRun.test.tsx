import 'fake-indexeddb/auto';
import type { Me } from '@keen-bleed/contract';
import { roadTest, type RunState } from '@keen-bleed/core';
import { useLayoutEffect } from 'react';
import { madeUpUnit } from '../test/madeUpUnit';
import { doing, onPage } from '../test/onPage';
import type * as kept from './kept';
import { laneOf } from './kept';
import { folded, keptLog, openOnDevice, unsentFacts } from './logs';
import { recordFact } from './recordFact';
import { runHeaderOf } from './startRun';
import { tellTabs } from './tabs';
import type { LiveLog } from './useLog';
import { useRun, type NewRunFact } from './useRun';

/** Who waits for the lane, while it is held up; null where it is not. */
let mockSlow: (() => void)[] | null = null;
jest.mock('./kept', () => {
  const real = jest.requireActual<typeof kept>('./kept');
  return {
    ...real,
    laneOf: async (who: Parameters<typeof real.laneOf>[0]) => {
      if (mockSlow) await new Promise<void>((resolve) => mockSlow?.push(resolve));
      return real.laneOf(who);
    },
  };
});

globalThis.structuredClone ??= (value: unknown) => JSON.parse(JSON.stringify(value)) as never;
globalThis.fetch = () => Promise.reject(new TypeError('no network here'));

const me = { shopId: 's', personId: 'p' } as Me;
const mark = (key: string, readingPsi: number): NewRunFact => ({
  kind: 'mark',
  stepId: 'build-up',
  key,
  readingPsi,
  resolutionPsi: 1,
  method: 'crossing',
});
const ready: NewRunFact = { kind: 'ready', stepId: 'prepare', gauge: 'primary' };

let seen: ReturnType<typeof useRun>;
const look = (at: ReturnType<typeof useRun>) => {
  seen = at;
};
function Watch({ id }: { id: string }) {
  const run = useRun(id, me);
  useLayoutEffect(() => look(run));
  return null;
}
const live = (): LiveLog<'run', never> => {
  if (seen === 'loading' || seen === 'elsewhere') throw new Error(`the run is ${seen}`);
  return seen as never;
};
const state = () => {
  if (seen === 'loading' || seen === 'elsewhere') throw new Error(`the run is ${seen}`);
  return seen.state;
};
const keptSeqs = async (id: string) =>
  ((await keptLog(id))?.rows ?? []).map(({ seq }) => seq).sort((a, b) => a - b);

async function opened() {
  const unit = madeUpUnit('truck', { id: `u${Math.random()}` });
  const started = { unit, towed: [], rigId: null, ruleSet: roadTest, leftOut: ['drain'] };
  const header = runHeaderOf(started, 0);
  await openOnDevice(me, header, () => false);
  seen = 'loading';
  const page = await onPage(<Watch id={header.id} />);
  await loaded();
  return { page, id: header.id };
}

/** Lets the store answer; its answers come in turns of the event loop, as many as there are questions. */
async function loaded(until = () => seen !== 'loading'): Promise<void> {
  for (let turn = 0; turn < 200 && !until(); turn += 1) {
    await doing(() => new Promise<void>((resolve) => setTimeout(resolve, 0)));
  }
}

/** Lets so many turns of the event loop pass. */
const turns = async (count: number): Promise<void> => {
  for (let turn = 0; turn < count; turn += 1) {
    await doing(() => new Promise<void>((resolve) => setTimeout(resolve, 0)));
  }
};

describe('a run on this device', () => {
  it('has each fact in the store before it is said to be kept', async () => {
    const { page, id } = await opened();
    let problem: string | null = 'not yet';
    await doing(async () => {
      problem = await live().record(ready);
      expect(await keptSeqs(id)).toEqual([1]);
    });
    expect(problem).toBeNull();
    expect(state().step?.id).toBe('build-up');
    expect(await unsentFacts(id)).toHaveLength(1);
    await page.leave();
  });

  it('is where it was after the page was closed and opened again', async () => {
    const { page, id } = await opened();
    await doing(() => live().record(ready));
    await doing(() => live().record(mark('from', 85)));
    await page.leave();
    seen = 'loading';
    const again = await onPage(<Watch id={id} />);
    await loaded();
    expect(state().awaited?.key).toBe('to');
    expect(state().marks).toMatchObject([{ key: 'from', readingPsi: 85 }]);
    await again.leave();
  });

  it('is drawn where the newest is followed before it is drawn as a whole, and at once where that is asked for', async () => {
    const { page, id } = await opened();
    const drawn: string[] = [];
    function Whole() {
      const run = useRun(id, me);
      const count = typeof run === 'string' ? run : String(run.facts.length);
      useLayoutEffect(() => {
        drawn.push(`whole ${count}`);
        look(run);
      }, [count, run]);
      return typeof run === 'string' ? null : <Part run={run} />;
    }
    function Part({ run }: { run: LiveLog<'run', RunState> }) {
      const { ahead } = run;
      useLayoutEffect(
        () => ahead.subscribe(() => drawn.push(`part ${ahead.state()?.awaited?.key ?? 'nothing'}`)),
        [ahead],
      );
      return null;
    }
    await page.redraw(<Whole />);
    await loaded(() => drawn.length > 2);
    await doing(() => live().record(ready));
    drawn.length = 0;
    await doing(() => live().record(mark('from', 85)));
    expect(drawn).toEqual(['part to', 'whole 2']);
    await doing(async () => {
      await live().record(mark('to', 100));
      expect(drawn).toEqual(['part to', 'whole 2', 'part cut-out']);
      // What acts now finds all of it drawn.
      live().ahead.catchUp(live().state);
      expect(drawn.at(-1)).toBe('whole 3');
    });
    expect(drawn.at(-1)).toBe('whole 3');
    // Two entries of one press are one step on the screen.
    drawn.length = 0;
    await doing(() =>
      Promise.all(['dry', 'cold'].map((text) => live().record({ kind: 'note', text }))),
    );
    expect(live().facts).toHaveLength(5);
    expect(drawn.filter((each) => each.startsWith('whole'))).toEqual(['whole 5']);
    await page.leave();
  });

  it('refuses a reading off the gauge in words, and keeps nothing of it', async () => {
    const { page, id } = await opened();
    await doing(() => live().record(ready));
    let problem: string | null = null;
    await doing(async () => {
      problem = await live().record(mark('from', 9999));
    });
    expect(problem).toContain('off the gauge');
    expect(await keptSeqs(id)).toEqual([1]);
    await page.leave();
  });

  it('puts two facts pressed at once in their order, each in a place of its own', async () => {
    const { page, id } = await opened();
    await doing(() => live().record(ready));
    const { record } = live();
    await doing(() => Promise.all([record(mark('from', 85)), record(mark('to', 100))]));
    expect(await keptSeqs(id)).toEqual([1, 2, 3]);
    expect(state().step?.id).toBe('cut-out');
    await page.leave();
  });

  it('keeps a mark on the screen that is made while the store is read for another reason', async () => {
    const { page, id } = await opened();
    await doing(() => live().record(ready));
    // The server has confirmed: the store is read anew. The pad is pressed once that has been read, before it is shown.
    mockSlow = [];
    tellTabs(id);
    await loaded(() => mockSlow?.length === 1);
    const recorded = live().record(mark('from', 85));
    await turns(20);
    mockSlow?.forEach((go) => go());
    mockSlow = null;
    await doing(() => recorded);
    await turns(20);
    expect(state().marks).toMatchObject([{ key: 'from', readingPsi: 85 }]);
    await page.leave();
  });

  it('follows what another tab writes, and goes on behind it', async () => {
    const { page, id } = await opened();
    await doing(() => live().record(ready));
    const other = { log: folded((await keptLog(id))!), lane: await laneOf(me) };
    await doing(() => recordFact(other, mark('from', 85), Date.now()));
    // What the other tab's word over the channel does here.
    await doing(() => tellTabs(id));
    await loaded(() => state().marks.length === 1);
    expect(state().awaited?.key).toBe('to');
    await doing(() => live().record(mark('to', 100)));
    expect(await keptSeqs(id)).toEqual([1, 2, 3]);
    expect(state().step?.id).toBe('cut-out');
    await page.leave();
  });

  it('goes on after a fact that was refused', async () => {
    const { page } = await opened();
    await doing(() => live().record(ready));
    await doing(() => live().record(mark('nonsense', 85)));
    await doing(() => live().record(mark('from', 85)));
    expect(state().marks).toHaveLength(1);
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
