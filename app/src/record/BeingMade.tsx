import { sayMinute } from '../data/when';
import type { RunState } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';

interface BeingMadeProps {
  state: RunState;
  /** Who opened it. */
  by: string;
  /** Names by lane. */
  writers: Readonly<Record<string, string>>;
  /** Goes on with it on this device; null for whoever may not. */
  onTakeOver: (() => Promise<string | null>) | null;
}

/** A run that is being made on another device: who is at which step, and the way to go on with it here. */
export function BeingMade({ state, by, writers, onTakeOver }: BeingMadeProps) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const taken = state.takeOvers.at(-1);
  const who = (taken && writers[taken.lane]) ?? by;
  const { step, stepIndex, procedure } = state;
  const go = async () => {
    const problem = await onTakeOver?.().catch(
      () => 'This device could not keep the run. Free some space on it, then try again.',
    );
    setTrouble(problem ?? null);
  };
  return (
    <View style={{ gap: space.near, alignItems: 'flex-start' }}>
      <Notice
        title={
          step
            ? `${who} is at “${step.title}”, step ${stepIndex + 1} of ${procedure.steps.length}`
            : `${who} has done all steps and has not closed the run yet`
        }
        text={
          taken
            ? `Taken over at ${sayMinute(taken.atMs - (taken.offsetMs ?? 0))} on another device. What is marked on the first one after that is kept in the record and does not count.`
            : 'New marks show here as they come in.'
        }
      />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      {onTakeOver ? (
        <Button
          title="Go on with it here"
          label="Take this run over and go on with it on this device"
          onPress={() => void go()}
        />
      ) : null}
    </View>
  );
}
