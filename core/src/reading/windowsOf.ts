import { figureTitles } from './figureWords';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { limitFor } from '../standards/limitFor';
import { toPsi } from '../units/pressure';
import type { RuleSet } from '@keen-bleed/contract';
import type { Procedure } from '../procedure/procedure';

/** A band of the scale in which something must happen. */
export interface PressureWindow {
  stepId: string;
  fromPsi: number;
  toPsi: number;
  label: string;
}

/** How far a limit with one end only is drawn from it, psi. */
const OPEN_END_PSI = 12;

/** Every window of a procedure: where the limits that apply let its levels fall. */
export function windowsOf(
  procedure: Procedure,
  rig: RigUnderTest,
  ruleSet: RuleSet,
): PressureWindow[] {
  const { gauge } = rig.unit;
  const topPsi = toPsi(gauge.top, gauge.unit);
  const found: PressureWindow[] = [];
  for (const step of procedure.steps) {
    for (const figure of step.windowFigures) {
      const limit = limitFor(figure, rig, ruleSet);
      if (!limit) continue;
      const fromPsi = limit.min ?? Math.max(0, (limit.max ?? 0) - OPEN_END_PSI);
      const window: PressureWindow = {
        stepId: step.id,
        fromPsi,
        toPsi: limit.max ?? Math.min(topPsi, fromPsi + OPEN_END_PSI),
        label: figureTitles[figure].toLowerCase(),
      };
      // Both knobs may pop in the same window: it is drawn once, under the step's name.
      const same = found.find(
        (each) =>
          each.stepId === step.id && each.fromPsi === window.fromPsi && each.toPsi === window.toPsi,
      );
      if (same) same.label = step.title.toLowerCase();
      else found.push(window);
    }
  }
  return found;
}
