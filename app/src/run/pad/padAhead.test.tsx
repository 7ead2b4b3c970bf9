import type { RunFact } from '@keen-bleed/contract';
import { FoldedLog, roadTest, runKind, type RunState } from '@keen-bleed/core';
import { useLayoutEffect } from 'react';
import type { LinkedGauge } from '../../linked/linkedGauge';
import { LogAhead } from '../../store/logAhead';
import { stamped } from '../../store/recordFact';
import { runHeaderOf } from '../../store/startRun';
import type { LiveRun } from '../../store/useRun';
import { madeUpUnit } from '../../test/madeUpUnit';
import { doing, onPage } from '../../test/onPage';
import { RunClock } from '../desk/runClock';
import { useRunActs, type RunActs } from '../desk/useRunActs';
import { useRunDesk, type RunDesk } from '../desk/useRunDesk';
import { PadPart } from './PadPart';
import { deskAhead, padWaits, padWords } from './padWords';

/** Longer than a bounce of the glove, ms. */
const BETWEEN_PRESSES_MS = 4_000;

/** A run that is pressed through by its desk, on a clock that the test moves. */
async function atDesk(linked: LinkedGauge | null = null) {
  const header = runHeaderOf(
    { unit: madeUpUnit(), towed: [], rigId: null, ruleSet: roadTest, leftOut: ['drain'] },
    0,
  );
  const log = new FoldedLog(runKind, header);
  let nowMs = 1_000;
  jest.spyOn(Date, 'now').mockImplementation(() => nowMs);
  const clock = () => nowMs;
  const record: LiveRun['record'] = (fact) => {
    const made = stamped({ log: log as never, lane: header.id }, fact, nowMs, 0) as RunFact;
    const problem = log.admit(made);
    if (!problem) log.add(made);
    return Promise.resolve(problem?.message ?? null);
  };
  const seen: { desk?: RunDesk } = {};
  function Desk({ state }: { state: RunState }) {
    const desk = useRunDesk({ state, record }, linked);
    useLayoutEffect(() => {
      seen.desk = desk;
    });
    return null;
  }
  const at = (state: RunState) => (
    <RunClock.Provider value={clock}>
      <Desk state={state} />
    </RunClock.Provider>
  );
  let drawn = log.state;
  const page = await onPage(at(drawn));
  return {
    state: () => drawn,
    newest: () => log.state,
    desk: () => seen.desk!,
    draw: () => page.redraw(at((drawn = log.state))),
    later: async (ms: number) => {
      nowMs += ms;
      await doing(() => document.dispatchEvent(new Event('visibilitychange')));
    },
    leave: page.leave,
  };
}

afterEach(() => jest.restoreAllMocks());

describe('the pad, drawn before all else', () => {
  it('says of every entry of a road test what it says once the whole screen is drawn', async () => {
    const run = await atDesk();
    const said: string[] = [];
    for (let press = 0; run.newest().closed === null && press < 300; press += 1) {
      await run.later(BETWEEN_PRESSES_MS);
      const { hold } = run.desk();
      if (hold && !hold.over) await run.later(hold.leftMs + 1);
      while (run.desk().openCount > 0) await doing(() => run.desk().answerUsual());
      if (run.newest() === run.state()) await doing(() => run.desk().press());
      const [before, state] = [run.state(), run.newest()];
      if (state === before || state.closed) continue;
      const ahead = deskAhead(state, { state: before, desk: run.desk() }, null);
      const { gauge } = state.unit;
      await run.draw();
      expect(padWords(state, gauge, ahead)).toEqual(padWords(state, gauge, run.desk()));
      expect(padWaits(state, ahead)).toBe(padWaits(state, run.desk()));
      said.push(padWords(state, gauge, ahead).title);
    }
    expect(run.newest().closed?.how).toBe('complete');
    expect(said.at(-1)).toBe('Keep this run');
    expect(new Set(said).size).toBeGreaterThan(12);
    await run.leave();
  });
});

describe('the pad of a run with a linked gauge', () => {
  it('says at once that the gauge saw what comes next, and where', async () => {
    // A needle that climbs a psi a second from 60 at the first second, and stops at 125.
    const log = Array.from({ length: 240 }, (_, n) => ({
      seq: n,
      atMs: 1_000 + n * 500,
      psi: Math.min(125, 60 + n / 2),
    }));
    const linked: LinkedGauge = { log, psi: 125, resolutionPsi: 0.1, asRole: 'primary' };
    const run = await atDesk(linked);
    await run.later(1_000);
    while (run.desk().openCount > 0) await doing(() => run.desk().answerUsual());
    await doing(() => run.desk().press());
    await run.draw();
    await run.later(120_000);
    const said: string[] = [];
    for (let n = 0; n < 3; n += 1) {
      await run.later(BETWEEN_PRESSES_MS);
      await doing(() => run.desk().press());
      const [before, state] = [run.state(), run.newest()];
      const ahead = deskAhead(state, { state: before, desk: run.desk() }, linked);
      const { gauge } = state.unit;
      const { title, hint } = padWords(state, gauge, ahead);
      await run.draw();
      expect({ title, hint }).toEqual(padWords(state, gauge, run.desk()));
      expect(ahead.caughtAtMs).toBe(run.desk().caughtAtMs);
      said.push(`${title}, ${hint}`);
    }
    // Marked when the gauge saw it: 25 s and 40 s from the start of the climb.
    const marked = run.state().marks.map(({ atMs }) => Math.round(atMs / 1000));
    expect(marked.slice(0, 2)).toEqual([26, 41]);
    expect(said.slice(0, 2)).toEqual([
      'Needle at 100 psi, the gauge saw it: confirm',
      'Stopped at 125 psi, the gauge saw it: confirm',
    ]);
    expect(said[2]).not.toContain('the gauge saw it');
    await run.leave();
  });
});

describe('what is done at the pad', () => {
  it('acts on what the pad says, which may be ahead of what the screen is drawn with', async () => {
    const did: string[] = [];
    let drawn = 'build-up';
    let draws = 0;
    const ahead = new LogAhead<RunState>(() => {
      draws += 1;
      // As the screen draws: at once, and with the newest.
      drawn = 'cut-out';
      void page.redraw(<Screen />);
    });
    const states = { 'build-up': { n: 1 }, 'cut-out': { n: 2 } } as unknown as Record<
      string,
      RunState
    >;
    const seen: { acts?: RunActs } = {};
    function Screen() {
      const at = drawn;
      const does = (what: string) => () => did.push(`${what} in ${at}`);
      const acts = useRunActs(
        { ahead, state: states[at]! },
        {
          press: does('press'),
          undo: does('undo'),
          answerUsual: does('answer'),
          nudge: (moves) => did.push(`nudge ${moves} in ${at}`),
        },
      );
      useLayoutEffect(() => {
        seen.acts = acts;
      });
      return null;
    }
    ahead.tell(states['build-up']!);
    const page = await onPage(<Screen />);
    seen.acts?.press();
    expect(draws).toBe(0);
    ahead.tell(states['cut-out']!);
    seen.acts?.undo();
    seen.acts?.nudge(-1);
    seen.acts?.answerUsual();
    expect(did).toEqual([
      'press in build-up',
      'undo in cut-out',
      'nudge -1 in cut-out',
      'answer in cut-out',
    ]);
    expect(draws).toBe(1);
    await page.leave();
  });
});

describe('the pad of a run that is ahead of its screen', () => {
  it('shows what is kept before the screen is drawn with it', async () => {
    const header = runHeaderOf(
      { unit: madeUpUnit(), towed: [], rigId: null, ruleSet: roadTest, leftOut: ['drain'] },
      0,
    );
    const log = new FoldedLog(runKind, header);
    const redraw = jest.fn();
    const ahead = new LogAhead<RunState>(redraw);
    const run: LiveRun = {
      ...{ header, state: log.state, facts: [], ahead },
      record: () => Promise.resolve(null),
    };
    function Place() {
      const desk = useRunDesk(run);
      const acts = useRunActs(run, desk);
      return (
        <PadPart
          {...{ run, desk, acts, rowDesk: desk, linked: null, canUndo: false }}
          heights={{ marking: 240, looking: 116 }}
          onNote={() => undefined}
        />
      );
    }
    ahead.tell(run.state);
    const page = await onPage(<Place />);
    const pad = page.all('button').find(({ className }) => className === 'pad')!;
    expect(pad.textContent).toContain('to answer');
    expect([pad.style.height, ahead.isShown]).toEqual(['116px', true]);
    const ready = { kind: 'ready', stepId: run.state.step!.id, gauge: 'primary' } as const;
    log.add(stamped({ log: log as never, lane: header.id }, ready, 5_000, 0) as RunFact);
    ahead.tell(log.state);
    expect(pad.textContent).toContain('Needle at 85 psi');
    expect(pad.style.height).toBe('240px');
    expect(redraw).not.toHaveBeenCalled();
    await page.leave();
    expect(ahead.isShown).toBe(false);
  });
});
