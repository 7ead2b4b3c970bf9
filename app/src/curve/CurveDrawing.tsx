import type { PressureUnit } from '@keen-bleed/contract';
import { fromPsi, toPsi } from '@keen-bleed/core';
import { sweepsOf, type CurvePoint } from '@keen-bleed/core/bench';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { sayDay } from '../data/when';
import { NUMERAL_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import type { CurveBand } from './curveBand';
import type { EarlierCurve } from './madeFor';

const HEIGHT = 220;
const LEFT = 34;
const RIGHT = 10;
const TOP = 10;
const BOTTOM = 24;

interface CurveDrawingProps {
  points: readonly CurvePoint[];
  /** What was read before, the newest first. */
  earlier: readonly EarlierCurve[];
  /** What a sound rig of this description gives. */
  sound?: readonly CurvePoint[] | null;
  /** Where the points should lie, under the line of equal pressures. */
  band: CurveBand;
  /** What the two ports are called. */
  names?: readonly [from: string, to: string];
  unit: PressureUnit;
}

/** The loop of a valve: up as squares on a line, down as rings on a broken one, and the band it may lie in. */
export function CurveDrawing({
  points,
  earlier,
  sound = null,
  band,
  names: [from, to] = ['In', 'Out'],
  unit,
}: CurveDrawingProps) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const most = Math.max(20, ...points.flat(), ...earlier.flatMap((each) => each.points.flat()));
  const x = scaleLinear()
    .domain([0, most])
    .range([LEFT, width - RIGHT]);
  const y = scaleLinear()
    .domain([0, most])
    .range([HEIGHT - BOTTOM, TOP]);
  const { up, down } = sweepsOf(points);
  const top = up.at(-1);
  const path = line<number>()
    .x((n) => x(points[n]![0]))
    .y((n) => y(points[n]![1]));
  const along = (less: number): [number, number][] => [
    less < 0 ? [x(0), y(-less)] : [x(less), y(0)],
    less < 0 ? [x(most + less), y(most)] : [x(most), y(Math.max(0, most - less))],
  ];
  // Round in the unit that is spoken.
  const ticks = scaleLinear()
    .domain([0, fromPsi(most, unit)])
    .ticks(4);
  return (
    <View>
      <View
        role="img"
        aria-label={`${to} against ${from.toLowerCase()}: ${up.length} points up, ${down.length} down`}
        onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
        style={{ height: HEIGHT }}
      >
        {width > 0 ? (
          <Svg width={width} height={HEIGHT} aria-hidden>
            {band ? (
              <Path
                d={`M${[...along(band[0]), ...along(band[1]).reverse()].map((at) => at.join(',')).join('L')}Z`}
                fill={palette.rule}
              />
            ) : null}
            {ticks.map((tick) => {
              const psi = toPsi(tick, unit);
              return (
                <G key={tick}>
                  <Line
                    x1={x(psi)}
                    x2={x(psi)}
                    y1={TOP}
                    y2={HEIGHT - BOTTOM}
                    stroke={palette.rule}
                    strokeWidth={0.5}
                  />
                  <Line
                    x1={LEFT}
                    x2={width - RIGHT}
                    y1={y(psi)}
                    y2={y(psi)}
                    stroke={palette.rule}
                    strokeWidth={0.5}
                  />
                  <SvgText
                    x={x(psi)}
                    y={HEIGHT - 8}
                    fontSize={12}
                    fontFamily={NUMERAL_FACE}
                    fill={palette.quiet}
                    textAnchor="middle"
                  >
                    {tick}
                  </SvgText>
                  <SvgText
                    x={LEFT - 6}
                    y={y(psi) + 4}
                    fontSize={12}
                    fontFamily={NUMERAL_FACE}
                    fill={palette.quiet}
                    textAnchor="end"
                  >
                    {tick}
                  </SvgText>
                </G>
              );
            })}
            {earlier.map(({ atMs, points: before }) => (
              <Path
                key={atMs}
                d={
                  line<CurvePoint>()
                    .x(([from]) => x(from))
                    .y(([, to]) => y(to))([...before]) ?? ''
                }
                stroke={palette.quiet}
                strokeWidth={1}
                fill="none"
              />
            ))}
            {sound ? (
              <Path
                d={
                  line<CurvePoint>()
                    .x(([asked]) => x(asked))
                    .y(([, given]) => y(given))([...sound]) ?? ''
                }
                stroke={palette.ink}
                strokeWidth={1}
                strokeDasharray="2 4"
                fill="none"
              />
            ) : null}
            <Path d={path(up) ?? ''} stroke={palette.accent} strokeWidth={2} fill="none" />
            {down.length > 0 && top !== undefined ? (
              <Path
                d={path([top, ...down]) ?? ''}
                stroke={palette.accent}
                strokeWidth={2}
                strokeDasharray="5 4"
                fill="none"
              />
            ) : null}
            {up.map((n) => (
              <Rect
                key={n}
                x={x(points[n]![0]) - 4}
                y={y(points[n]![1]) - 4}
                width={8}
                height={8}
                fill={palette.accent}
              />
            ))}
            {down.map((n) => (
              <Circle
                key={n}
                cx={x(points[n]![0])}
                cy={y(points[n]![1])}
                r={4.5}
                fill={palette.ground}
                stroke={palette.accent}
                strokeWidth={2}
              />
            ))}
          </Svg>
        ) : null}
      </View>
      {sound ? (
        <Txt as="small" tone="quiet">
          Dotted: a sound rig like this, by its twin.
        </Txt>
      ) : null}
      {earlier.length > 0 ? (
        <Txt as="small" tone="quiet">
          {`Thin lines: as it was read on ${earlier.map(({ atMs }) => sayDay(atMs)).join(' and ')}.`}
        </Txt>
      ) : null}
    </View>
  );
}
