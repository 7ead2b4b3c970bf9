import type { PressureUnit } from '@keen-bleed/contract';
import { fromPsi, rounded } from '@keen-bleed/core';
import type { Segment } from '@keen-bleed/core/trace';
import { scaleLinear } from 'd3-scale';
import { View } from 'react-native';
import Svg, { G, Path, Rect, Text as SvgText } from 'react-native-svg';
import { sayClock } from '../data/when';
import { NUMERAL_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';
import type { DrawnPoint } from './traceWorker';

interface TraceChartProps {
  label: string;
  points: readonly DrawnPoint[];
  segments: readonly Segment[];
  chosen: Segment | null;
  view: readonly [fromS: number, toS: number];
  rangePsi: readonly [low: number, high: number];
  unit: PressureUnit;
  width: number;
  height: number;
}

const LEFT = 44;
const BOTTOM = 24;

/** A recorded curve over its time, with the segments found in it as bands. */
export function TraceChart({
  label,
  points,
  segments,
  chosen,
  view,
  rangePsi,
  unit,
  width,
  height,
}: TraceChartProps) {
  const palette = usePalette();
  const x = scaleLinear()
    .domain([...view])
    .range([LEFT, width - 4]);
  const y = scaleLinear()
    .domain(rangePsi.map((psi) => fromPsi(psi, unit)))
    .nice(4)
    .range([height - BOTTOM, 8]);
  const at = ({ s, psi }: DrawnPoint) => `${x(s).toFixed(1)} ${y(fromPsi(psi, unit)).toFixed(1)}`;
  const line = points.map((point, i) => `${i === 0 ? 'M' : 'L'}${at(point)}`).join('');
  const inView = segments.filter((each) => each.toS >= view[0] && each.fromS <= view[1]);
  return (
    <View role="img" aria-label={label} style={{ width, height }}>
      <Svg width={width} height={height} aria-hidden>
        {inView
          .filter((each) => each.kind === 'hold' || each.kind === 'build-up' || each.kind === 'gap')
          .map((each) => {
            const from = Math.max(LEFT, x(each.fromS));
            const to = Math.min(width - 4, x(each.toS));
            return (
              <Rect
                key={`${each.kind}${each.fromS}`}
                x={from}
                y={8}
                width={Math.max(1, to - from)}
                height={height - BOTTOM - 8}
                fill={palette.raised}
                stroke={each === chosen ? palette.ink : palette.rule}
                strokeWidth={each === chosen ? 2 : 1}
              />
            );
          })}
        <G>
          {y.ticks(4).map((value) => (
            <G key={value}>
              <Path d={`M${LEFT} ${y(value)}H${width - 4}`} stroke={palette.rule} />
              <SvgText
                x={LEFT - 6}
                y={y(value) + 4}
                fontSize={12}
                fontFamily={NUMERAL_FACE}
                fill={palette.quiet}
                textAnchor="end"
              >
                {rounded(value, 2)}
              </SvgText>
            </G>
          ))}
          {x.ticks(width > 600 ? 8 : 4).map((s) => (
            <SvgText
              key={s}
              x={x(s)}
              y={height - 6}
              fontSize={12}
              fontFamily={NUMERAL_FACE}
              fill={palette.quiet}
              textAnchor="middle"
            >
              {sayClock(s * 1000)}
            </SvgText>
          ))}
        </G>
        <Path d={line} stroke={palette.accent} strokeWidth={1.8} fill="none" />
        {inView
          .filter((each) => each.kind === 'cut-out' || each.kind === 'cut-in')
          .map((each) => (
            <Path
              key={`${each.kind}${each.fromS}`}
              d={`M${x(each.fromS)} ${y(fromPsi(each.fromPsi, unit)) - 12}v24m-6 -12h12`}
              stroke={palette.ink}
              strokeWidth={2}
            />
          ))}
      </Svg>
    </View>
  );
}
