import { extent } from 'd3-array';
import { scaleLinear, scaleTime } from 'd3-scale';
import { line } from 'd3-shape';
import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { sayDay } from '../data/when';
import { NUMERAL_FACE, TEXT_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';

/** One run's value of a figure. */
export interface TrendPoint {
  atMs: number;
  value: number;
  /** It was under this and no more is known. */
  isBound: boolean;
  verdict: string | null;
}

interface TrendLineProps {
  points: readonly TrendPoint[];
  min: number | null;
  max: number | null;
  say: (value: number) => string;
  label: string;
  width: number;
}

const HEIGHT = 100;
const LEFT = 48;
const RIGHT = 12;
const TOP = 10;
const BOTTOM = 22;

/** A figure over time with its limit as a line; a point that failed is a flag, one in doubt a diamond. */
export function TrendLine({ points, min, max, say, label, width }: TrendLineProps) {
  const palette = usePalette();
  const [firstMs, lastMs] = extent(points, (point) => point.atMs);
  const [low, high] = extent([
    ...points.map((point) => point.value),
    ...[min, max].filter((each) => each !== null),
  ]);
  if (firstMs === undefined || lastMs === undefined || low === undefined || high === undefined)
    return null;
  const pad = Math.max((high - low) * 0.12, Math.abs(high) * 0.02, 0.2);
  const x = scaleTime()
    .domain([firstMs, lastMs])
    .range([LEFT, width - RIGHT]);
  const y = scaleLinear()
    .domain([low >= 0 ? Math.max(0, low - pad) : low - pad, high + pad])
    .range([HEIGHT - BOTTOM, TOP]);
  const path = line<TrendPoint>()
    .x((point) => x(point.atMs))
    .y((point) => y(point.value))(points.filter((point) => !point.isBound));
  const last = points.at(-1);
  const spoken = last
    ? `${label}: ${points.length} runs, newest ${last.isBound ? 'under ' : ''}${say(last.value)}`
    : label;
  return (
    <View role="img" aria-label={spoken}>
      <Svg width={width} height={HEIGHT} aria-hidden>
        {[min, max].map((limit, index) =>
          limit === null ? null : (
            <G key={index}>
              <Rect
                x={LEFT}
                width={width - LEFT - RIGHT}
                // The side that is not allowed is tinted as far as the drawing goes.
                y={index === 0 ? y(limit) : TOP}
                height={Math.max(0, index === 0 ? HEIGHT - BOTTOM - y(limit) : y(limit) - TOP)}
                fill={palette.raised}
              />
              <Line
                x1={LEFT}
                x2={width - RIGHT}
                y1={y(limit)}
                y2={y(limit)}
                stroke={palette.edge}
                strokeWidth={1.5}
                strokeDasharray="5 4"
              />
              <SvgText
                x={LEFT - 6}
                y={y(limit) + 5}
                textAnchor="end"
                fontSize={13}
                fontFamily={NUMERAL_FACE}
                fill={palette.quiet}
              >
                {say(limit)}
              </SvgText>
            </G>
          ),
        )}
        <Path
          d={path ?? ''}
          fill="none"
          stroke={palette.ink}
          strokeWidth={1.8}
          strokeLinejoin="round"
        />
        {points.map((point) => (
          <Mark
            key={point.atMs}
            x={x(point.atMs)}
            y={y(point.value)}
            verdict={point.verdict}
            isBound={point.isBound}
            newest={point === last}
          />
        ))}
        <SvgText x={LEFT} y={HEIGHT - 4} fontSize={13} fontFamily={TEXT_FACE} fill={palette.quiet}>
          {sayDay(firstMs)}
        </SvgText>
        <SvgText
          x={width - RIGHT}
          y={HEIGHT - 4}
          textAnchor="end"
          fontSize={13}
          fontFamily={TEXT_FACE}
          fill={palette.quiet}
        >
          {sayDay(lastMs)}
        </SvgText>
      </Svg>
    </View>
  );
}

function Mark({
  x,
  y,
  verdict,
  isBound,
  newest,
}: {
  x: number;
  y: number;
  verdict: string | null;
  isBound: boolean;
  newest: boolean;
}) {
  const palette = usePalette();
  if (isBound)
    return (
      <Path
        d={`M${x - 5} ${y}h10M${x} ${y}v9m-3.5 -3.5l3.5 3.5 3.5 -3.5`}
        fill="none"
        stroke={palette.ink}
        strokeWidth={1.5}
      />
    );
  if (verdict === 'fail')
    return <Path d={`M${x - 5} ${y - 5}h10l-3.4 5 3.4 5h-10z`} fill={palette.fail} />;
  if (verdict === 'cant-tell') {
    return (
      <Path
        d={`M${x} ${y - 5.5}l5.5 5.5-5.5 5.5-5.5-5.5z`}
        fill={palette.ground}
        stroke={palette.ink}
        strokeWidth={1.5}
        strokeDasharray="2.4 1.6"
      />
    );
  }
  return <Circle cx={x} cy={y} r={newest ? 4.5 : 2.6} fill={palette.ink} />;
}
