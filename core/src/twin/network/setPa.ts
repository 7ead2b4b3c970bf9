import type { AirBuild } from './airBuild';
import { pa } from './pascal';

/** What a part is set to by what was found on it, or usually, Pa. */
export const setPa = (build: AirBuild, part: string, usualPsi: number): number =>
  pa(build.part(part)?.setPsi ?? usualPsi);
