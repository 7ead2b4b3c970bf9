import type { AirBuild } from './airBuild';
import { OUTSIDE } from './network';
import { pa } from './pascal';

/** Behind this the take-off keeps the brakes their air, psi. */
const KEEPS_PSI = 60;
/** Room of what is worked by air, L. */
const ROOM: Readonly<Record<string, number>> = {
  suspension: 25,
  horn: 0.3,
  wiper: 0.5,
  seat: 1.5,
  door: 3,
  'tyre-inflation': 6,
};

/** Where accessories take their air: what they lose stops at the pressure it keeps. */
export function takeOffWays(build: AirBuild): void {
  const part = 'accessories';
  const feed = build.at(part, 'in');
  const over = { on: [[feed, 1]], biasPa: -pa(KEEPS_PSI), bandPa: pa(5) } as const;
  build.net.way('accessory take-off', feed, OUTSIDE, 0, { does: 'seal', part, openings: [over] });
  const consumers = build.plumbing.lines.some(({ from }) => from.part === part);
  if (!consumers) return;
  const line = build.own(part, 'out', { role: 'accessory line', litres: 0.5, part });
  build.net.check('accessory feed', feed, line, 2, {
    part,
    openings: [
      over,
      {
        on: [
          [feed, 1],
          [line, -1],
        ],
        biasPa: -3_000,
        bandPa: 6_000,
      },
    ],
  });
}

/** Room at an auxiliary compressor's head, L. */
const HEAD_LITRES = 0.2;

/** An auxiliary compressor: at rest, with a check that keeps the tank's air from its head. */
export function auxiliaryWays(build: AirBuild): void {
  const part = 'auxiliary-compressor';
  if (!build.plumbing.parts.some(({ id }) => id === part)) return;
  const tank = build.at(part, 'in');
  const head = build.net.node('auxiliary compressor', HEAD_LITRES, { kind: 'accessory', part });
  build.net.check('auxiliary check', head, tank, 2, { part });
}

/** What is worked by air behind the take-off, each with room of its own behind a narrow feed. */
export function consumerWays(build: AirBuild): void {
  for (const { id: part, role } of build.plumbing.parts) {
    const litres = ROOM[part];
    if (role !== 'consumer' || litres === undefined) continue;
    const feed = build.at(part, 'in');
    const name = part.replace('-', ' ');
    const node = build.net.node(name, litres, { kind: 'accessory', part });
    build.net.way(`${name} feed`, feed, node, 0.4, {
      part,
      // Each is behind a valve that keeps what is in front of it.
      openings: [
        { on: [[feed, 1]], biasPa: -pa(KEEPS_PSI), bandPa: pa(5) },
        {
          on: [
            [feed, 1],
            [node, -1],
          ],
          biasPa: -3_000,
          bandPa: 6_000,
        },
      ],
    });
  }
}
