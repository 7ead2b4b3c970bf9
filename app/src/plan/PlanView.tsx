import type { PressureUnit } from '@keen-bleed/contract';
import type { LineCircuit } from '@keen-bleed/core';
import { LABEL, type Plan, type PlanSymbol } from '@keen-bleed/core/drawing';
import { memo } from 'react';
import { Pressable, View } from 'react-native';
import Svg, { Circle, G, Line, Rect, Text as SvgText } from 'react-native-svg';
import type { BoundPlan } from '../air/drawing';
import { TEXT_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';
import type { MovingAir } from './liveAir';
import { PlanLines } from './PlanLines';
import { PlanSymbols } from './PlanSymbols';

interface PlanViewProps {
  bound: BoundPlan;
  frame: MovingAir | null;
  unit: PressureUnit;
  /** One circuit with the rest faded, or all. */
  circuit: LineCircuit | null;
  chosen: string | null;
  onChoose: (symbol: PlanSymbol) => void;
  /** Keys of parts and lines that something is wrong with. */
  marked?: ReadonlySet<string>;
  /** Keys of the only parts that are not faded; null fades none. */
  only?: ReadonlySet<string> | null;
  /** The drawing is made smaller to fit this width, px; never larger than it is. */
  fit: number;
  /** Where something acts now, by key of its part. */
  actsAt?: ReadonlySet<string>;
}

const NONE: ReadonlySet<string> = new Set();

/** A rig seen from above: chassis and wheels, lines by circuit, parts as symbols, each to be touched. */
export const PlanView = memo(function PlanView({
  bound: { plan, air },
  frame,
  unit,
  circuit,
  chosen,
  onChoose,
  marked = NONE,
  only = null,
  fit,
  actsAt = NONE,
}: PlanViewProps) {
  const scale = Math.min(1, fit / plan.width);
  const touches = circuitsOf(plan);
  const faded = ({ key, unit: of, folded }: PlanSymbol) =>
    (circuit !== null && !(touches.get(key)?.has(circuit) ?? false)) ||
    (only !== null && !only.has(key) && !folded.some((part) => only.has(`${of} ${part}`)));
  return (
    <View style={{ width: plan.width * scale, height: plan.height * scale }}>
      <Svg
        width={plan.width * scale}
        height={plan.height * scale}
        viewBox={`0 0 ${plan.width} ${plan.height}`}
        // A ring around a part at the edge stands out over it.
        style={{ overflow: 'visible' }}
        aria-hidden
      >
        <Chassis plan={plan} />
        <PlanLines plan={plan} air={air} frame={frame} circuit={circuit} marked={marked} />
        <PlanSymbols
          plan={plan}
          air={air}
          frame={frame}
          unit={unit}
          chosen={chosen}
          marked={marked}
          faded={faded}
        />
        <ActsAt plan={plan} keys={actsAt} />
      </Svg>
      {plan.symbols.map((symbol) => (
        <Touch
          key={symbol.key}
          symbol={symbol}
          scale={scale}
          chosen={symbol.key === chosen}
          several={
            plan.units.length > 1
              ? (plan.units.find((each) => each.unit === symbol.unit)?.title ?? '')
              : ''
          }
          onChoose={onChoose}
        />
      ))}
    </View>
  );
});

/** Which circuits each part is on. */
function circuitsOf(plan: Plan): ReadonlyMap<string, ReadonlySet<LineCircuit>> {
  const found = new Map<string, Set<LineCircuit>>();
  const hosts = new Map<string, string>(
    plan.symbols.flatMap(({ key, unit, folded }) =>
      folded.map((part) => [`${unit} ${part}`, key] as const),
    ),
  );
  for (const { unit, from, to, circuit } of plan.lines) {
    for (const part of [from, to]) {
      const own = `${unit} ${part}`;
      const key = hosts.get(own) ?? own;
      found.set(key, (found.get(key) ?? new Set()).add(circuit));
    }
  }
  return found;
}

const Chassis = memo(function Chassis({ plan }: { plan: Plan }) {
  const palette = usePalette();
  return plan.units.map(({ unit, title, box, cab, rails, axles, wheels, titleAt }) => (
    <G key={unit}>
      <Rect {...box} rx={8} fill="none" stroke={palette.rule} strokeWidth={1} />
      {cab ? (
        <Rect {...cab} rx={16} fill={palette.raised} stroke={palette.rule} strokeWidth={1.5} />
      ) : null}
      {rails.map((rail) => (
        <Rect key={rail.x + rail.y} {...rail} fill={palette.rule} fillOpacity={0.55} />
      ))}
      {axles.map(({ from, to }) => (
        <Line
          key={from.x + from.y}
          x1={from.x}
          y1={from.y}
          x2={to.x}
          y2={to.y}
          stroke={palette.edge}
          strokeWidth={4}
        />
      ))}
      {axles.map(({ label }) => (
        <SvgText
          key={label.x + label.y}
          x={label.x + label.width / 2}
          y={label.y + LABEL.size - 1}
          fontSize={LABEL.size}
          fontFamily={TEXT_FACE}
          textAnchor="middle"
          fill={palette.quiet}
        >
          {label.lines[0]}
        </SvgText>
      ))}
      {wheels.map((wheel) => (
        <Rect
          key={`${wheel.x} ${wheel.y}`}
          {...wheel}
          rx={6}
          fill={palette.raised}
          stroke={palette.edge}
          strokeWidth={1.2}
        />
      ))}
      <SvgText
        x={titleAt.x}
        y={titleAt.y}
        fontSize={13}
        fontWeight="700"
        fontFamily={TEXT_FACE}
        fill={palette.quiet}
      >
        {title}
      </SvgText>
    </G>
  ));
});

/** A ring around where the step acts. */
function ActsAt({ plan, keys }: { plan: Plan; keys: ReadonlySet<string> }) {
  const palette = usePalette();
  return plan.symbols
    .filter(
      ({ key, unit, folded }) =>
        keys.has(key) || folded.some((part) => keys.has(`${unit} ${part}`)),
    )
    .map(({ key, box }) => (
      <Circle
        key={key}
        cx={box.x + box.width / 2}
        cy={box.y + box.height / 2}
        r={Math.max(box.width, box.height) / 2 + 8}
        fill="none"
        stroke={palette.accent}
        strokeWidth={3}
      />
    ));
}

interface TouchProps {
  symbol: PlanSymbol;
  scale: number;
  chosen: boolean;
  several: string;
  onChoose: (symbol: PlanSymbol) => void;
}

const Touch = memo(function Touch({ symbol, scale, chosen, several, onChoose }: TouchProps) {
  const { title, target, folded } = symbol;
  const more = folded.length > 0 ? `, with ${folded.length} small parts` : '';
  return (
    <Pressable
      role="button"
      aria-label={`${several ? `${several}: ` : ''}${title}${more}`}
      aria-pressed={chosen}
      onPress={() => onChoose(symbol)}
      style={{
        position: 'absolute',
        left: target.x * scale,
        top: target.y * scale,
        width: target.width * scale,
        height: target.height * scale,
      }}
    />
  );
});
