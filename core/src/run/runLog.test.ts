import type { RunFact } from '@keen-bleed/contract';
import fc from 'fast-check';
import { FoldedLog } from '../log/foldedLog';
import { runKind } from '../log/kinds/run/runKind';
import type { NewFact } from '../facts/newFact';
import { Walk } from '../test/walk';
import { padNow, markAt } from './awaiting';
import { stateOfRun } from './stateOfRun';

const PAULA = '00000000-0000-7000-8000-0000000000a1';
const MAREN = '00000000-0000-7000-8000-0000000000a2';
const { header } = new Walk().log;
const { made } = header;

/** Somebody who writes in a lane of their own, on what their own device knows. */
class Device {
  readonly log = new FoldedLog(runKind, header);
  static made = 0;

  constructor(private readonly lane: string) {}

  /** What comes in from elsewhere. */
  hear(facts: readonly RunFact[]): void {
    for (const fact of facts) if (!this.log.has(fact.id)) this.log.add(fact);
  }

  tell(fact: NewFact<RunFact>, atS: number): RunFact {
    const whole = {
      atMs: header.startedAtMs + atS * 1000,
      ...fact,
      id: `00000000-0000-7000-8000-${String((Device.made += 1)).padStart(12, '0')}`,
      lane: this.lane,
      seq: this.log.nextSeq(this.lane),
      offsetMs: 0,
      v: 2,
    } as RunFact;
    const problem = this.log.admit(whole);
    if (problem) throw new Error(problem.message);
    this.log.add(whole);
    return whole;
  }

  /** The mark the pad offers. */
  mark(atS: number, psi: number): RunFact {
    const atMs = header.startedAtMs + atS * 1000;
    const pad = padNow(this.log.state, atMs);
    if (!pad || !this.log.state.step) throw new Error('nothing to mark');
    const { spec, method } = markAt(pad, psi, made.unit.gauge);
    const { id } = this.log.state.step;
    return this.tell(
      { kind: 'mark', stepId: id, key: spec.key, readingPsi: psi, resolutionPsi: 1, method },
      atS,
    );
  }

  takeOver(atS: number): RunFact {
    const { [this.lane]: _own, ...knew } = this.log.lanes;
    return this.tell({ kind: 'take-over', knew }, atS);
  }
}

/** Paula begins; Maren goes on with what she heard of it; Paula, out of reach, marks on. */
function takenOver() {
  const paula = new Device(PAULA);
  const known = [
    paula.tell({ kind: 'ready', stepId: 'prepare', gauge: 'primary' }, 1),
    paula.mark(10, 85),
  ];
  const maren = new Device(MAREN);
  maren.hear(known);
  const over = maren.takeOver(20);
  const own = [maren.mark(40, 100), maren.mark(60, 126)];
  // Her clock says it was before the taking over: it is what Maren knew that decides, not the time.
  const late = [paula.mark(15, 100), paula.mark(18, 124)];
  return { paula, maren, known, over, own, late };
}

const ids = (facts: readonly { id: string }[]) => facts.map(({ id }) => id);

describe('a run that is taken over', () => {
  it('goes on where it stood, and does not count what the first device marked out of reach', () => {
    const { known, over, own, late } = takenOver();
    const state = stateOfRun(made, [...known, ...late, over, ...own]);
    expect(state.marks.map(({ readingPsi }) => readingPsi)).toEqual([85, 100, 126]);
    expect(state.marks.map(({ factId }) => factId)).toEqual(ids([...known.slice(1), ...own]));
    expect(ids(state.setAside)).toEqual(ids(late));
    expect(state.takeOvers.at(-1)?.lane).toBe(MAREN);
  });

  it('stands the same in whatever order facts arrive, one by one or at once, and loses none', () => {
    const { known, over, own, late } = takenOver();
    const all = [...known, over, ...own, ...late];
    const whole = stateOfRun(made, all);
    fc.assert(
      fc.property(fc.shuffledSubarray(all, { minLength: all.length }), (shuffled) => {
        const log = new FoldedLog(runKind, header);
        // Lanes come in between each other in any way; each lane comes in its own order.
        for (const { lane } of shuffled) {
          log.add(all.find((fact) => fact.lane === lane && !log.has(fact.id))!);
        }
        expect(log.state).toEqual(whole);
        expect(log.facts).toHaveLength(all.length);
      }),
    );
  });

  it('goes by what each knew and not by a clock that is minutes behind', () => {
    const { paula, known, over, own } = takenOver();
    paula.hear([over, ...own]);
    // Her clock has been set back: by it she takes it back before it was ever taken.
    const back = { ...paula.takeOver(200), atMs: header.startedAtMs + 12_000 };
    const mark = { ...paula.mark(210, 104), atMs: header.startedAtMs + 13_000 };
    const state = stateOfRun(made, [...known, over, ...own, back, mark]);
    expect(state.marks.map(({ readingPsi }) => readingPsi)).toEqual([85, 100, 126, 104]);
    expect(state.takeOvers.at(-1)?.lane).toBe(PAULA);
    expect(state.setAside.filter(({ seq, lane }) => lane === PAULA && seq > 4)).toEqual([]);
  });

  it('can be taken back: from then on the first device counts again', () => {
    const { paula, known, over, own, late } = takenOver();
    paula.hear([over, ...own]);
    const back = paula.takeOver(80);
    const mark = paula.mark(95, 104);
    const state = stateOfRun(made, [...known, ...late, over, ...own, back, mark]);
    expect(state.marks.map(({ readingPsi }) => readingPsi)).toEqual([85, 100, 126, 104]);
    expect(ids(state.setAside)).toEqual(ids(late));
    expect(state.takeOvers.at(-1)?.lane).toBe(PAULA);
  });

  it('is not closed by the device it was taken from, and takes what comes late even when closed', () => {
    const { paula, maren, late } = takenOver();
    maren.hear(late);
    const skip = paula.tell({ kind: 'skip', stepId: 'cut-in', reason: 'x' }, 65);
    maren.hear([skip]);
    expect(maren.log.state.skips.size).toBe(0);
    maren.tell({ kind: 'close', how: 'incomplete', reason: 'No air' }, 90);
    const close = paula.tell({ kind: 'close', how: 'complete' }, 100);
    expect(maren.log.admit(close)).toBeNull();
    maren.log.add(close);
    expect(maren.log.state.closed?.reason).toBe('No air');
    expect(ids(maren.log.state.setAside)).toEqual(ids([...late, skip, close]));
  });

  it('is not opened again by a device that had not heard of its closing', () => {
    const { paula, maren, over, own, late } = takenOver();
    paula.hear([over, ...own]);
    const back = paula.takeOver(110);
    maren.hear(late);
    maren.tell({ kind: 'close', how: 'incomplete', reason: 'No air' }, 90);
    expect(maren.log.admit(back)?.code).toBe('log-closed');
  });

  it('takes a note from anybody at any time, and nothing else once it is closed', () => {
    const { maren } = takenOver();
    maren.tell({ kind: 'close', how: 'incomplete', reason: 'No air' }, 90);
    maren.tell({ kind: 'note', text: 'Found the hose off afterwards' }, 200);
    expect(maren.log.state.notes).toEqual([
      expect.objectContaining({ stepId: null, text: 'Found the hose off afterwards' }),
    ]);
    expect(() => maren.tell({ kind: 'skip', stepId: 'cut-in', reason: 'x' }, 210)).toThrow(
      'is closed',
    );
  });
});

describe('odometer and place', () => {
  it('stand as they were last said, and undo passes them by', () => {
    const device = new Device(PAULA);
    device.tell({ kind: 'about', odometer: { value: 412_300, unit: 'km' }, place: 'Yard' }, 1);
    device.tell({ kind: 'about', place: 'Pit 2' }, 2);
    expect(device.log.state.about).toEqual({
      odometer: { value: 412_300, unit: 'km' },
      place: 'Pit 2',
    });
    expect(device.log.state.undoable).toBeNull();
    expect(() => device.tell({ kind: 'about' }, 3)).toThrow('Enter the odometer');
  });

  it('do not stand in the way of undo, nor does a clock that was set right', () => {
    const device = new Device(PAULA);
    device.tell({ kind: 'ready', stepId: 'prepare', gauge: 'primary' }, 1);
    const mark = device.mark(10, 85);
    device.tell({ kind: 'clock', lane: PAULA, offsetMs: 5_000 } as never, 12);
    expect(device.log.state.undoable?.id).toBe(mark.id);
  });
});
