import { fromPsi, itemsOf, rounded, sayLevel } from '@keen-bleed/core';
import { useCallback } from 'react';
import { View } from 'react-native';
import type { LinkedGauge } from '../../linked/linkedGauge';
import type { LiveRun } from '../../store/useRun';
import { space } from '../../theme/space';
import { Notice } from '../../ui/Notice';
import type { RunActs } from '../desk/useRunActs';
import type { RunDesk } from '../desk/useRunDesk';
import { NudgeRow } from './NudgeRow';
import { Pad, type PadFace } from './Pad';
import { deskAhead, padWaits, padWords } from './padWords';

interface PadNowProps {
  run: LiveRun;
  desk: RunDesk;
  linked: LinkedGauge | null;
  acts: RunActs;
  /** Its height where a moment is waited for, and where something is looked at, px. */
  heights: { marking: number; looking: number };
}

interface PadPartProps extends PadNowProps {
  /** The same, as the row over the pad shows it: drawn after the pad itself. */
  rowDesk: RunDesk;
  canUndo: boolean;
  onNote: () => void;
}

const nobody = () => () => undefined;

/** The pad, as of the newest entry: it is the first to be drawn after a press, whatever else that press changes. */
function PadAhead({ run, desk, linked, acts, heights }: PadNowProps) {
  const { ahead, state: drawn } = run;
  const face = useCallback((): PadFace => {
    const state = ahead?.state() ?? drawn;
    const now = state === drawn ? desk : deskAhead(state, { state: drawn, desk }, linked);
    // Nothing is timed while things are looked at: the room is the list's.
    const isLooking = state.step !== null && itemsOf(state.step).length > 0;
    return {
      ...padWords(state, state.unit.gauge, now),
      atTouch: now.pad !== null,
      disabled: !padWaits(state, now),
      height: isLooking ? heights.looking : heights.marking,
    };
  }, [ahead, desk, drawn, heights.looking, heights.marking, linked]);
  return <Pad face={face} follow={ahead?.subscribe ?? nobody} onPress={acts.press} />;
}

/** Everything under the thumb: trouble where there is any, the nudges, the pad. */
export function PadPart({ rowDesk, canUndo, onNote, ...pad }: PadPartProps) {
  const { desk, acts, run } = pad;
  const { unit } = run.state.unit.gauge;
  return (
    <View>
      {desk.trouble ? (
        <View style={{ padding: space.step }}>
          <Notice manner="trouble" title={desk.trouble} />
        </View>
      ) : null}
      <NudgeRow
        reading={rowDesk.needlePsi === null ? null : sayLevel(rowDesk.needlePsi, unit)}
        move={rounded(fromPsi(rowDesk.movePsi, unit), 2)}
        canUndo={canUndo}
        onNudge={acts.nudge}
        onUndo={acts.undo}
        onNote={onNote}
      />
      <PadAhead {...pad} />
    </View>
  );
}
