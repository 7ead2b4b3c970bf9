import type { Gauge } from '@keen-bleed/contract';
import {
  fromPsi,
  markAt,
  NOT_DONE,
  rounded,
  sayLevel,
  sayPressure,
  type RunState,
} from '@keen-bleed/core';
import { sayClock } from '../../data/when';
import { useCallback, useLayoutEffect, useRef } from 'react';
import { View } from 'react-native';
import { space } from '../../theme/space';
import { Notice } from '../../ui/Notice';
import { NudgeRow } from './NudgeRow';
import { Pad } from './Pad';
import type { RunDesk } from '../desk/useRunDesk';

interface PadPartProps {
  state: RunState;
  gauge: Gauge;
  desk: RunDesk;
  /** The same, as the row over the pad shows it: drawn after the pad itself. */
  rowDesk: RunDesk;
  canUndo: boolean;
  height: number;
  onNote: () => void;
}

/** What the pad says: the act of the step, not its name, decides. */
function padWords(
  state: RunState,
  gauge: Gauge,
  { pad, hold, settling, needlePsi, answers, openCount, caughtAtMs, isSet }: RunDesk,
): { title: string; hint: string } {
  const act = state.step?.act;
  if (!act) return { title: 'Keep this run', hint: 'closes it; nothing can be added after' };
  if (openCount > 0) {
    return {
      title: openCount === 1 ? 'One to answer' : `${openCount} to answer`,
      hint: 'tap what you found on each line above',
    };
  }
  if (act.kind === 'ready') return { title: act.pad, hint: 'starts the run' };
  if (act.kind === 'look') {
    const bad = act.items.filter((item) =>
      item.options.some((each) => each.value === answers[item.key] && each.standing === 'bad'),
    ).length;
    const undone = act.items.filter((item) => answers[item.key] === NOT_DONE).length;
    return {
      title: bad > 0 ? `Keep, ${bad} not right` : 'Keep what was found',
      hint: undone > 0 ? `${undone} not done` : 'as answered above',
    };
  }
  if (hold?.over && !pad) return { title: 'Hold over', hint: 'lift the thumb' };
  if (!pad || needlePsi === null) {
    return { title: 'Hold', hint: 'the needle is at the bottom of the scale' };
  }
  const reading = sayPressure(needlePsi, gauge.unit);
  const { spec } = markAt(pad, needlePsi, gauge);
  return {
    title: spec.pad.replace('{reading}', reading),
    hint:
      caughtAtMs !== null
        ? 'the gauge saw it: confirm'
        : settling && settling.leftMs > 0
          ? `better wait ${sayClock(settling.leftMs)} more`
          : spec.at === 'needle' && !isSet
            ? 'suggested: press the ladder where the needle stands'
            : spec.hint,
  };
}

/** Everything under the thumb: trouble where there is any, the nudges, the pad. */
export function PadPart({ state, gauge, desk, rowDesk, canUndo, height, onNote }: PadPartProps) {
  const { title, hint } = padWords(state, gauge, desk);
  // The row is drawn after the pad; what its keys do is of now all the same.
  const latest = useRef(desk);
  useLayoutEffect(() => {
    latest.current = desk;
  });
  const nudge = useCallback((moves: number) => latest.current.nudge(moves), []);
  const undo = useCallback(() => latest.current.undo(), []);
  const act = state.step?.act.kind;
  const waits =
    desk.openCount === 0 &&
    (act === undefined || act === 'ready' || act === 'look' || desk.pad !== null);
  return (
    <View>
      {desk.trouble ? (
        <View style={{ padding: space.step }}>
          <Notice manner="trouble" title={desk.trouble} />
        </View>
      ) : null}
      <NudgeRow
        reading={rowDesk.needlePsi === null ? null : sayLevel(rowDesk.needlePsi, gauge.unit)}
        move={rounded(fromPsi(rowDesk.movePsi, gauge.unit), 2)}
        canUndo={canUndo}
        onNudge={nudge}
        onUndo={undo}
        onNote={onNote}
      />
      <Pad
        title={title}
        hint={hint}
        atTouch={desk.pad !== null}
        disabled={!waits}
        onPress={desk.press}
        height={height}
      />
    </View>
  );
}
