import type { PressureUnit } from '@keen-bleed/contract';
import { fromPsi, rounded } from '@keen-bleed/core';
import { LABEL, type Plan, type PlanAir, type PlanSymbol } from '@keen-bleed/core/drawing';
import type { DeviceState } from '@keen-bleed/core/twin';
import { memo } from 'react';
import { G, Path, Rect, Text as SvgText } from 'react-native-svg';
import { NUMERAL_FACE, TEXT_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';
import type { MovingAir } from './liveAir';
import { PartSymbol, positionsOf } from './symbols';

/** Full of colour at this pressure, psi. */
const FULL_PSI = 130;

/** A pressure in the fewest figures that tell it. */
export const shortPressure = (psi: number, unit: PressureUnit): string =>
  rounded(fromPsi(Math.max(0, psi), unit), unit === 'bar' ? 1 : 0);

interface PlanSymbolsProps {
  plan: Plan;
  air: PlanAir;
  frame: MovingAir | null;
  unit: PressureUnit;
  chosen: string | null;
  /** Parts that something is wrong with, by key. */
  marked: ReadonlySet<string>;
  faded: (symbol: PlanSymbol) => boolean;
}

/** Every part of a drawing as its graphic symbol, with its name, its state and its fill. */
export function PlanSymbols({ plan, air, frame, unit, chosen, marked, faded }: PlanSymbolsProps) {
  return plan.symbols.map((symbol, n) => {
    const bound = air.symbols[n];
    const psi = frame && bound && bound.place >= 0 ? (frame.psi[bound.place] ?? 0) : null;
    const device = bound?.device
      ? frame?.devices.find(({ id }) => id === bound.device)?.state
      : undefined;
    const latch =
      frame && bound?.latch && positionsOf(symbol.role).length > 0
        ? frame.high.includes(bound.latch)
          ? 'on'
          : 'off'
        : undefined;
    // A service pressure is drawn in steps of 2 psi: less is not seen.
    const share = psi === null ? null : Math.min(1, Math.round(psi / 2) / (FULL_PSI / 2));
    return (
      <OneSymbol
        key={symbol.key}
        symbol={symbol}
        state={latch ?? device ?? null}
        share={symbol.role === 'tank' || symbol.role === 'chamber' ? share : null}
        said={symbol.role === 'tank' && psi !== null ? shortPressure(psi, unit) : null}
        chosen={symbol.key === chosen}
        marked={
          marked.has(symbol.key) ||
          symbol.folded.some((part) => marked.has(`${symbol.unit} ${part}`))
        }
        faded={faded(symbol)}
      />
    );
  });
}

interface OneSymbolProps {
  symbol: PlanSymbol;
  state: DeviceState | null;
  share: number | null;
  said: string | null;
  chosen: boolean;
  marked: boolean;
  faded: boolean;
}

const OneSymbol = memo(function OneSymbol({
  symbol,
  state,
  share,
  said,
  chosen,
  marked,
  faded,
}: OneSymbolProps) {
  const palette = usePalette();
  const { box, label, role, known, folded, hasSpring } = symbol;
  const isTank = role === 'tank';
  // Inside the rounded ends of a tank.
  const inset = isTank ? 9 : 3;
  // What nobody has seen yet is drawn quieter than what somebody has.
  const ink = known === 'seen' ? palette.ink : palette.quiet;
  const fill = role === 'chamber' ? palette.serviceAir : palette.supplyAir;
  return (
    <G opacity={faded ? 0.25 : 1}>
      {chosen || marked ? (
        <Rect
          x={box.x - 3}
          y={box.y - 3}
          width={box.width + 6}
          height={box.height + 6}
          rx={4}
          fill="none"
          stroke={chosen ? palette.accent : palette.fail}
          strokeWidth={3}
        />
      ) : null}
      <PartSymbol
        role={role}
        box={box}
        palette={palette}
        state={state}
        hasSpring={hasSpring}
        ink={ink}
      />
      {share !== null && share > 0 ? (
        <Rect
          x={box.x + inset}
          y={box.y + box.height - (isTank ? 10 : 7)}
          width={(box.width - 2 * inset) * share}
          height={isTank ? 5 : 4}
          rx={2}
          fill={fill}
        />
      ) : null}
      {known === 'not known' ? (
        <Path
          d={`M${box.x} ${box.y - 3}h${box.width}`}
          stroke={palette.edge}
          strokeWidth={2}
          strokeDasharray="2 3"
        />
      ) : null}
      {folded.length > 0 ? (
        <Path
          d={`M${box.x + box.width - 1} ${box.y - 5}h6m-3 -3v6`}
          stroke={palette.quiet}
          strokeWidth={1.6}
          fill="none"
        />
      ) : null}
      {(label?.lines ?? []).map((words, n) => (
        <SvgText
          key={words}
          x={isTank ? box.x + box.width / 2 : label!.x + label!.width / 2}
          y={
            (isTank ? box.y + (box.height > 40 ? 16 : 13) : label!.y + LABEL.size - 1) +
            n * LABEL.line
          }
          fontSize={LABEL.size}
          fontFamily={TEXT_FACE}
          textAnchor="middle"
          fill={ink}
        >
          {words}
        </SvgText>
      ))}
      {said ? (
        <SvgText
          x={box.x + box.width / 2}
          y={box.y + (box.height > 40 ? 33 : 27)}
          fontSize={14}
          fontFamily={NUMERAL_FACE}
          fontWeight="700"
          textAnchor="middle"
          fill={palette.ink}
        >
          {said}
        </SvgText>
      ) : null}
    </G>
  );
});
