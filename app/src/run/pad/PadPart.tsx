import type { Gauge } from '@keen-bleed/contract';
import { fromPsi, markAt, rounded, sayLevel, sayPressure, type RunState } from '@keen-bleed/core';
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
  height: number;
  onNote: () => void;
}

/** What the pad says: the act of the step, not its name, decides. */
function padWords(
  state: RunState,
  gauge: Gauge,
  { pad, hold, needlePsi, answers, caughtAtMs }: RunDesk,
): { title: string; hint: string } {
  const act = state.step?.act;
  if (!act) return { title: 'Keep this run', hint: 'closes it; nothing can be added after' };
  if (act.kind === 'ready') return { title: act.pad, hint: 'starts the run' };
  if (act.kind === 'look') {
    const notUsual = act.items.filter((item) => answers[item.key] !== item.options[0]?.value);
    if (notUsual.length === 0) {
      return act.items.length === 1
        ? { title: 'As it should be', hint: 'tap the line above if it is not' }
        : {
            title: `All ${act.items.length} as they should be`,
            hint: 'tap a line above if one is not',
          };
    }
    const rest = act.items.length - notUsual.length;
    const bad = notUsual.filter((item) =>
      item.options.some((each) => each.value === answers[item.key] && each.standing === 'bad'),
    ).length;
    const found = bad > 0 ? `${bad} not right` : `${notUsual.length} otherwise`;
    return {
      title: `Keep, ${found}`,
      hint: rest > 0 ? 'the rest as they should be' : 'as chosen above',
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
    hint: caughtAtMs === null ? spec.hint : 'the gauge saw it: confirm',
  };
}

/** Everything under the thumb: trouble where there is any, the nudges, the pad. */
export function PadPart({ state, gauge, desk, height, onNote }: PadPartProps) {
  const { title, hint } = padWords(state, gauge, desk);
  const act = state.step?.act.kind;
  const waits = act === undefined || act === 'ready' || act === 'look' || desk.pad !== null;
  return (
    <View>
      {desk.trouble ? (
        <View style={{ padding: space.step }}>
          <Notice manner="trouble" title={desk.trouble} />
        </View>
      ) : null}
      <NudgeRow
        reading={desk.needlePsi === null ? null : sayLevel(desk.needlePsi, gauge.unit)}
        move={rounded(fromPsi(desk.movePsi, gauge.unit), 2)}
        canUndo={state.undoable !== null}
        onNudge={desk.nudge}
        onUndo={desk.undo}
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
