import type { AirBuild } from './airBuild';
import { pa } from './pascal';
import { setPa } from './setPa';

const WARNS_AT_PSI = 62;
/** It falls silent so far over where it warns, psi. */
const SILENT_OVER_PSI = 14;
const STOP_LAMP_PSI = 5;

/** A low-air switch, at the tank its line comes from. */
export function lowAirSwitch(build: AirBuild, name: string): void {
  const part = `${name}-low-air-switch`;
  if (!build.has(part)) return;
  const lowPa = setPa(build, part, WARNS_AT_PSI);
  build.net.latch({
    id: `${name} warning`,
    role: 'low-air switch',
    part,
    node: build.at(part, 'in'),
    lowPa,
    highPa: lowPa + pa(SILENT_OVER_PSI),
  });
}

/** A stop-lamp switch: behind a double check it feels the higher of both circuits. */
export function stopLampSwitch(build: AirBuild, part: string, id: string): void {
  if (!build.has(part)) return;
  build.net.latch({
    id,
    role: 'stop-lamp switch',
    part,
    node: build.at(part, 'first'),
    orNode: part === 'stop-lamp-switch' ? build.at(part, 'second') : null,
    lowPa: pa(STOP_LAMP_PSI - 1),
    highPa: pa(STOP_LAMP_PSI),
  });
}
