import type { PressureUnit, School } from '@keen-bleed/contract';
import { sayStep, type HoldNow, type RunState } from '@keen-bleed/core';
import { useEffect } from 'react';
import { usePrefs } from '../../prefs/prefs';
import { speak } from '../../ui/speak';

/** Seconds left at which a hold is counted aloud. */
const COUNTED = new Set([30, 10, 5, 4, 3, 2, 1]);

/** Speaks each step as it comes and counts the last seconds of a hold, where the holder of the device wants it. */
export function useSpokenRun(
  state: RunState,
  hold: HoldNow | null,
  unit: PressureUnit,
  school: School,
): void {
  const { voice } = usePrefs();
  const { step } = state;
  const on = voice === 'on';
  useEffect(() => {
    if (!on) return;
    if (!step) {
      speak('All steps done.');
      return;
    }
    const [first = ''] = step.say;
    speak(`${step.title}. ${[...step.cautions, sayStep(first, unit, school)].join(' ')}`);
  }, [on, school, step, unit]);
  const leftS = hold ? Math.ceil(hold.leftMs / 1000) : null;
  useEffect(() => {
    if (on && leftS !== null && COUNTED.has(leftS))
      speak(leftS > 9 ? `${leftS} seconds` : `${leftS}`);
  }, [leftS, on]);
}
