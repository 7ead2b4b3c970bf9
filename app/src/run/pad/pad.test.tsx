import { procedureFor, roadTest, runState } from '@keen-bleed/core';
import { useCallback } from 'react';
import { madeUpUnit } from '../../test/madeUpUnit';
import { doing, onPage } from '../../test/onPage';
import { NudgeRow } from './NudgeRow';
import { Pad, type PadFace } from './Pad';
import { rangeInSight } from '../desk/rangeInSight';

const touch = (element: Element, type: string) =>
  element.dispatchEvent(
    new MouseEvent(type, { bubbles: true, cancelable: true, button: 0, buttons: 1 }),
  );

interface ShownProps extends Omit<PadFace, 'disabled'> {
  disabled?: boolean;
  onPress: () => void;
}
const nobody = () => () => undefined;

/** A pad that shows what it is drawn with. */
function Shown({ title, hint, atTouch, height, disabled = false, onPress }: ShownProps) {
  const face = useCallback(
    () => ({ title, hint, atTouch, height, disabled }),
    [title, hint, atTouch, height, disabled],
  );
  return <Pad face={face} follow={nobody} onPress={onPress} />;
}

describe('the pad', () => {
  it('shows what it has become before anything is drawn anew, and no older drawing takes it back', async () => {
    const pressed: string[] = [];
    let changed: () => void = () => undefined;
    const stopped = jest.fn();
    const follow = (listener: () => void) => {
      changed = listener;
      return stopped;
    };
    let now: PadFace = {
      ...{ title: 'Needle at 85 psi', hint: 'tap', atTouch: true, height: 200, disabled: false },
    };
    // Each drawing comes with a face of its own, and all of them tell the newest.
    const drawing = () => (
      <Pad face={() => now} follow={follow} onPress={() => pressed.push(now.title)} />
    );
    const page = await onPage(drawing());
    const pad = page.the('button', 'Needle at 85 psi. tap');
    now = { title: 'Keep what was found', hint: '', atTouch: false, height: 116, disabled: false };
    changed();
    expect(pad.textContent).toBe('Keep what was found');
    expect(pad.getAttribute('aria-label')).toBe('Keep what was found. ');
    expect(pad.style.height).toBe('116px');
    // It acts as what it says: when it is let go.
    touch(pad, 'pointerdown');
    expect(pressed).toEqual([]);
    touch(pad, 'pointerup');
    touch(pad, 'click');
    expect(pressed).toEqual(['Keep what was found']);
    now = { ...now, title: 'Hold', hint: 'lift the thumb', disabled: true };
    changed();
    expect(pad.getAttribute('aria-disabled')).toBe('true');
    const held = pad.style.background;
    await page.redraw(drawing());
    expect(pad.textContent).toBe('Holdlift the thumb');
    expect(stopped).toHaveBeenCalled();
    now = { ...now, disabled: false };
    changed();
    expect(pad.getAttribute('aria-disabled')).toBeNull();
    expect(pad.style.background).not.toBe(held);
    await page.leave();
  });

  it('keeps to itself what is done to it, and nothing else of the page', async () => {
    const heard: string[] = [];
    const hear = (event: { type: string }) => heard.push(event.type);
    const pressed = jest.fn();
    const types = ['pointerdown', 'touchstart', 'touchend', 'pointerup', 'mousedown', 'click'];
    for (const type of types) document.addEventListener(type, hear, true);
    const page = await onPage(
      <>
        <button type="button">Undo</button>
        <Shown title="Mark" hint="tap" atTouch height={200} onPress={pressed} />
      </>,
    );
    for (const type of types) touch(page.the('button', 'Mark. tap').firstElementChild!, type);
    expect(heard).toEqual([]);
    expect(pressed).toHaveBeenCalledTimes(1);
    for (const type of types) touch(page.the('button', 'Undo'), type);
    expect(heard).toEqual(types);
    await page.leave();
    // It is gone with its screen.
    touch(document.body, 'click');
    expect(heard).toEqual([...types, 'click']);
    for (const type of types) document.removeEventListener(type, hear, true);
  });

  it('marks when it is touched, and once, not again when it is let go', async () => {
    const marked = jest.fn();
    const page = await onPage(
      <Shown title="Needle at 85 psi" hint="tap" atTouch height={200} onPress={marked} />,
    );
    const pad = page.the('button', 'Needle at 85 psi. tap');
    await doing(() => touch(pad, 'pointerdown'));
    expect(marked).toHaveBeenCalledTimes(1);
    await doing(() => {
      touch(pad, 'pointerup');
      touch(pad, 'click');
    });
    expect(marked).toHaveBeenCalledTimes(1);
    await page.leave();
  });

  it('hears the next press where a release never came, since it had moved from under the finger', async () => {
    const pressed = jest.fn();
    const page = await onPage(
      <Shown title="Mark" hint="tap" atTouch height={200} onPress={pressed} />,
    );
    await doing(() => touch(page.the('button'), 'pointerdown'));
    await page.redraw(
      <Shown title="All right" hint="tap" atTouch={false} height={100} onPress={pressed} />,
    );
    await doing(() => touch(document.body, 'pointerup'));
    await doing(() => {
      const pad = page.the('button');
      touch(pad, 'pointerdown');
      touch(pad, 'pointerup');
      touch(pad, 'click');
    });
    expect(pressed).toHaveBeenCalledTimes(2);
    await page.leave();
  });

  it('shows that it is touched, until it is let go or the touch is taken away', async () => {
    const page = await onPage(
      <Shown title="Mark" hint="tap" atTouch height={200} onPress={() => undefined} />,
    );
    const pad = page.the('button');
    for (const end of ['pointerup', 'pointercancel']) {
      await doing(() => touch(pad, 'pointerdown'));
      expect(pad.className).toBe('pad felt');
      await doing(() => touch(pad, end));
      expect(pad.className).toBe('pad');
    }
    await page.leave();
  });

  it('is felt until the release where it has acted; sliding off what waits for the release presses nothing', async () => {
    const closed = jest.fn();
    const page = await onPage(
      <Shown title="Keep this run" hint="" atTouch={false} height={200} onPress={closed} />,
    );
    const pad = page.the('button');
    await doing(() => touch(pad, 'pointerdown'));
    await doing(() => pad.dispatchEvent(new MouseEvent('pointerleave')));
    expect(pad.className).toBe('pad');
    expect(closed).not.toHaveBeenCalled();
    await page.redraw(<Shown title="Mark" hint="" atTouch height={200} onPress={closed} />);
    await doing(() => touch(pad, 'pointerdown'));
    await doing(() => pad.dispatchEvent(new MouseEvent('pointerleave')));
    expect(pad.className).toBe('pad felt');
    // Wherever the finger is lifted.
    await doing(() => touch(document.body, 'pointerup'));
    expect(pad.className).toBe('pad');
    expect(closed).toHaveBeenCalledTimes(1);
    await page.leave();
  });

  it('takes the focus when it is touched, and nothing is said twice by mouse events after it', async () => {
    const page = await onPage(
      <>
        <button type="button">Undo</button>
        <Shown title="Mark" hint="tap" atTouch height={200} onPress={() => undefined} />
      </>,
    );
    page.the('button', 'Undo').focus();
    const pad = page.the('button', 'Mark. tap');
    const down = new MouseEvent('pointerdown', { bubbles: true, cancelable: true, button: 0 });
    await doing(() => pad.dispatchEvent(down));
    expect(down.defaultPrevented).toBe(true);
    expect(document.activeElement).toBe(pad);
    await page.leave();
  });

  it('takes a click long after its touch for a press of its own', async () => {
    const marked = jest.fn();
    const page = await onPage(
      <Shown title="Mark" hint="tap" atTouch height={200} onPress={marked} />,
    );
    const pad = page.the('button');
    const at = (type: string, timeStamp: number) => {
      const event = new MouseEvent(type, { bubbles: true, cancelable: true, button: 0 });
      Object.defineProperty(event, 'timeStamp', { value: timeStamp });
      pad.dispatchEvent(event);
    };
    // The finger slides off what it has marked: no click comes of it.
    await doing(() => at('pointerdown', 1_000));
    await doing(() => at('pointerup', 1_200));
    await doing(() => at('click', 2_000));
    expect(marked).toHaveBeenCalledTimes(2);
    await doing(() => at('pointerdown', 3_000));
    await doing(() => at('pointerup', 3_500));
    await doing(() => at('click', 3_501));
    expect(marked).toHaveBeenCalledTimes(3);
    await page.leave();
  });

  it('is marked by the main button alone, and once by a key that is held down', async () => {
    const marked = jest.fn();
    const page = await onPage(
      <Shown title="Mark" hint="tap" atTouch height={200} onPress={marked} />,
    );
    const pad = page.the('button');
    await doing(() =>
      pad.dispatchEvent(new MouseEvent('pointerdown', { bubbles: true, button: 2 })),
    );
    expect(marked).not.toHaveBeenCalled();
    const keyDown = (repeat: boolean) => {
      const event = new KeyboardEvent('keydown', {
        ...{ key: 'Enter', bubbles: true, cancelable: true, repeat },
      });
      pad.dispatchEvent(event);
      return event.defaultPrevented;
    };
    expect(keyDown(false)).toBe(false);
    expect(keyDown(true)).toBe(true);
    await page.leave();
  });

  it('is pressed without a touch by a screen reader', async () => {
    const marked = jest.fn();
    const page = await onPage(
      <Shown title="Mark" hint="tap" atTouch height={200} onPress={marked} />,
    );
    await doing(() => page.the('button').click());
    expect(marked).toHaveBeenCalledTimes(1);
    await page.leave();
  });

  it('waits for the release where there is no moment to catch, and does nothing when it waits for nothing', async () => {
    const closed = jest.fn();
    const page = await onPage(
      <Shown
        title="Keep this run"
        hint="closes it"
        atTouch={false}
        height={200}
        onPress={closed}
      />,
    );
    await doing(() => touch(page.the('button'), 'pointerdown'));
    expect(closed).not.toHaveBeenCalled();
    await doing(() => {
      touch(page.the('button'), 'pointerup');
      touch(page.the('button'), 'click');
    });
    expect(closed).toHaveBeenCalledTimes(1);
    await page.redraw(
      <Shown title="Hold" hint="" atTouch disabled height={200} onPress={closed} />,
    );
    await doing(() => page.the('button').click());
    expect(closed).toHaveBeenCalledTimes(1);
    await page.leave();
  });
});

describe('the row over the pad', () => {
  const row = (reading: string | null, does: Partial<Parameters<typeof NudgeRow>[0]> = {}) => (
    <NudgeRow
      reading={reading}
      move="1"
      canUndo
      onNudge={() => undefined}
      onUndo={() => undefined}
      onNote={() => undefined}
      {...does}
    />
  );

  it('nudges both ways and says by how much', async () => {
    const onNudge = jest.fn();
    const page = await onPage(row('118', { onNudge }));
    await doing(() => page.the('button', 'Move the reading down by 1').click());
    await doing(() => page.the('button', 'Move the reading up by 1').click());
    expect(onNudge.mock.calls).toEqual([[-1], [1]]);
    await page.leave();
  });

  it('offers no nudge without a reading and no undo without anything to take back', async () => {
    const page = await onPage(row(null, { canUndo: false }));
    const off = page.all('button').filter((each) => each.getAttribute('aria-disabled') === 'true');
    expect(off.map((each) => each.getAttribute('aria-label'))).toEqual([
      'Undo',
      'Move the reading down by 1',
      'Move the reading up by 1',
    ]);
    await page.leave();
  });
});

describe('what the ladder looks at', () => {
  const unit = madeUpUnit();
  const procedure = procedureFor({ unit, towed: [] }, roadTest, ['drain', 'couplers']);
  const base = { lane: 'l', seq: 0, atMs: 0, offsetMs: 0, v: 2 };
  const ready = {
    ...base,
    id: '1',
    seq: 1,
    kind: 'ready',
    stepId: 'prepare',
    gauge: 'primary',
  } as const;
  const skip = (seq: number, stepId: string) =>
    ({ ...base, id: String(seq), seq, kind: 'skip', stepId, reason: 'x' }) as const;
  const start = {
    ...base,
    id: '9',
    seq: 9,
    kind: 'mark',
    stepId: 'static-hold',
    key: 'start',
    readingPsi: 120,
    resolutionPsi: 1,
    method: 'read',
  } as const;

  it('is the whole dial, and in a hold the lines the needle may cross', () => {
    expect(rangeInSight(runState(procedure, unit, [ready]), unit.gauge)).toEqual([0, 150]);
    const holding = runState(procedure, unit, [
      ready,
      skip(2, 'build-up'),
      skip(3, 'cut-out'),
      skip(4, 'cut-in'),
      start,
    ]);
    const [low, high] = rangeInSight(holding, unit.gauge);
    expect([low, high]).toEqual([106, 126]);
  });

  it('follows a needle that falls far', () => {
    const fallen = {
      ...start,
      id: '10',
      seq: 10,
      key: 'crossing',
      readingPsi: 100,
      method: 'crossing',
    } as const;
    const holding = runState(procedure, unit, [
      ready,
      skip(2, 'build-up'),
      skip(3, 'cut-out'),
      skip(4, 'cut-in'),
      start,
      fallen,
    ]);
    expect(rangeInSight(holding, unit.gauge)[0]).toBe(94);
  });
});
