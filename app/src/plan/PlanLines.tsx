import type { LineCircuit } from '@keen-bleed/core';
import type { Plan, PlanAir, PlanLine } from '@keen-bleed/core/drawing';
import { memo } from 'react';
import { Path } from 'react-native-svg';
import type { Palette } from '../theme/palette';
import { usePalette } from '../theme/usePalette';
import { isMoving, thickness, type MovingAir } from './liveAir';

/** Patterns beside colours: service is dashed, park is dotted, supply is whole. */
const PATTERN: Readonly<Record<LineCircuit, string | undefined>> = {
  supply: undefined,
  service: '7 4',
  park: '2 4',
};

export const circuitColour = (palette: Palette, circuit: LineCircuit): string =>
  ({ supply: palette.supplyAir, service: palette.serviceAir, park: palette.parkAir })[circuit];

const pathOf = ({ points }: PlanLine): string =>
  points.map(({ x, y }, n) => `${n === 0 ? 'M' : 'L'}${x} ${y}`).join('');

interface PlanLinesProps {
  plan: Plan;
  air: PlanAir;
  frame: MovingAir | null;
  circuit: LineCircuit | null;
  /** Lines that something is wrong with, by id in their unit. */
  marked: ReadonlySet<string>;
}

/** Every line of a drawing: whole, dashed or dotted by its circuit; thicker, and moving, where air flows. */
export function PlanLines({ plan, air, frame, circuit, marked }: PlanLinesProps) {
  return plan.lines.map((line, n) => {
    const bound = air.lines[n];
    const flow =
      frame && bound
        ? bound.ways.reduce((most, way) => strongest(most, frame.scfm[way] ?? 0), 0)
        : 0;
    const psi = frame && bound && bound.place >= 0 ? (frame.psi[bound.place] ?? 0) : null;
    return (
      <OneLine
        key={line.key}
        line={line}
        width={thickness(flow)}
        moves={isMoving(flow)}
        forward={flow >= 0}
        empty={psi !== null && psi < 1}
        faded={circuit !== null && circuit !== line.circuit}
        marked={marked.has(line.key)}
      />
    );
  });
}

const strongest = (one: number, other: number): number =>
  Math.abs(other) > Math.abs(one) ? other : one;

interface OneLineProps {
  line: PlanLine;
  width: number;
  moves: boolean;
  forward: boolean;
  empty: boolean;
  faded: boolean;
  marked: boolean;
}

/** Drawn anew only when something of it has changed: a frame comes sixty times a second. */
const OneLine = memo(function OneLine({
  line,
  width,
  moves,
  forward,
  empty,
  faded,
  marked,
}: OneLineProps) {
  const palette = usePalette();
  const d = pathOf(line);
  const pattern = moves ? '8 6' : PATTERN[line.circuit];
  return (
    <>
      {marked ? (
        <Path
          d={d}
          stroke={palette.fail}
          strokeWidth={width + 6}
          strokeOpacity={0.35}
          fill="none"
        />
      ) : null}
      <Path
        d={d}
        stroke={circuitColour(palette, line.circuit)}
        strokeWidth={width}
        strokeOpacity={faded ? 0.18 : empty ? 0.5 : 1}
        strokeLinejoin="round"
        {...(pattern ? { strokeDasharray: pattern } : {})}
        {...(moves ? { className: forward ? 'air-moves' : 'air-moves-back' } : {})}
        fill="none"
      />
    </>
  );
});
