import type { RunHeader } from '@keen-bleed/contract';
import { windowsOf, type RunState } from '@keen-bleed/core';
import { useMemo } from 'react';
import { View } from 'react-native';
import { Ladder } from '../ladder/Ladder';
import type { RunDesk } from './desk/useRunDesk';
import { useBoxSize } from '../ui/useBoxSize';
import { rangeInSight } from './desk/rangeInSight';

export const LADDER_WIDTH = 202;

interface RunLadderProps {
  state: RunState;
  header: RunHeader;
  desk: RunDesk;
}

/** The ladder of a run that is being made, as tall as it is given room. */
export function RunLadder({ state, header, desk }: RunLadderProps) {
  const { gauge } = header.made.unit;
  const [box, onBox] = useBoxSize();
  const stepId = state.step?.id;
  const windows = useMemo(
    () =>
      state.hold
        ? []
        : windowsOf(state.procedure, header.made, header.made.ruleSet).map((each) => ({
            ...each,
            awaited: each.stepId === stepId,
          })),
    [header, state.hold, state.procedure, stepId],
  );
  const flags = useMemo(
    () =>
      state.marks.map((mark) => ({
        id: mark.factId,
        psi: mark.readingPsi,
        past: mark.stepId !== stepId,
      })),
    [state.marks, stepId],
  );
  const [lowPsi, highPsi] = rangeInSight(state, gauge);
  const range = useMemo(() => [lowPsi, highPsi] as const, [lowPsi, highPsi]);
  return (
    <View style={{ flex: 1 }} onLayout={onBox}>
      {box.height > 0 ? (
        <Ladder
          gauge={gauge}
          rangePsi={range}
          windows={windows}
          flags={flags}
          needlePsi={desk.needlePsi}
          livePsi={desk.livePsi}
          suggested={desk.pad?.spec.at === 'needle' && !desk.isSet}
          height={box.height}
          width={LADDER_WIDTH}
          {...(desk.pad ? { onDrag: desk.drag, onNudge: desk.nudge } : {})}
        />
      ) : null}
    </View>
  );
}
