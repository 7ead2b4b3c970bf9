import type { PressureUnit, School } from '@keen-bleed/contract';
import { sayPressure } from '../units/say';
import { sayParts } from './wording';

/**
 * Fills a step's sentence: pressures, written `{75}` in psi, in the gauge's own unit, and parts, written
 * `[primary]`, as the school calls them.
 */
export function sayStep(text: string, unit: PressureUnit, school: School): string {
  const filled = text.replace(/\{(\d+(?:\.\d+)?)\}/g, (_, psi: string) =>
    sayPressure(Number(psi), unit),
  );
  return sayParts(filled, school);
}
