import type { PressureUnit } from '@keen-bleed/contract';
import { fromPsi, rounded } from '@keen-bleed/core';
import type { Segment } from '@keen-bleed/core/trace';
import { scaleLinear } from 'd3-scale';
import { useState } from 'react';
import { View } from 'react-native';
import Svg, { G, Path, Rect, Text as SvgText } from 'react-native-svg';
import { sayClock } from '../data/when';
import { NUMERAL_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import type { TraceView } from './traceView';
import type { DrawnPoint } from '../recorded/traceWorker';

interface TraceChartProps {
  label: string;
  /** A line for each column; the first is the one that counts. */
  lines: readonly (readonly DrawnPoint[])[];
  segments: readonly Segment[];
  chosen: Segment | null;
  view: TraceView;
  rangePsi: readonly [low: number, high: number];
  unit: PressureUnit;
  width: number;
  height: number;
  /** Told when a stretch is drawn over with a finger or the pointer, to be looked at. */
  onView?: (view: TraceView) => void;
}

/** How the lines beside the first are told apart: by their dashes, not by colour alone. */
const DASHES = ['', '7 4', '2 4', '10 3 2 3'] as const;
const dashOf = (n: number) => DASHES[n % DASHES.length] ?? '';
/** A stretch shorter than this was a tap, px. */
const LEAST_DRAWN = 8;

const LEFT = 44;
const BOTTOM = 24;

/** Segments that are drawn as bands behind the curve. */
const BANDS: ReadonlySet<Segment['kind']> = new Set(['hold', 'build-up', 'gap', 'purge']);

interface Pointed {
  clientX: number;
  pointerId: number;
  currentTarget: {
    setPointerCapture: (id: number) => void;
    getBoundingClientRect: () => { left: number };
  };
}

const placeOf = ({ clientX, currentTarget }: Pointed) =>
  clientX - currentTarget.getBoundingClientRect().left;

/** Takes a stretch that is drawn from one place of the chart to another. */
function drawsStretch(
  drawn: readonly [number, number] | null,
  setDrawn: (drawn: readonly [number, number] | null) => void,
  finish: (drawn: readonly [number, number]) => void,
) {
  return {
    onPointerDown: (event: Pointed) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      setDrawn([placeOf(event), placeOf(event)]);
    },
    onPointerMove: (event: Pointed) => {
      if (drawn) setDrawn([drawn[0], placeOf(event)]);
    },
    onPointerUp: () => {
      if (drawn) finish(drawn);
      setDrawn(null);
    },
    onPointerCancel: () => setDrawn(null),
  };
}

/** A column's title without the unit of the file: the axis says what it is drawn in. */
const withoutUnit = (title: string) => title.replace(/\s*[([][^)\]]*[)\]]/, '');

/** Which line is which. */
export function TraceKey({ titles }: { titles: readonly string[] }) {
  const palette = usePalette();
  return (
    <View role="list" style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 16 }}>
      {titles.map((title, n) => (
        <View
          key={title}
          role="listitem"
          style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}
        >
          <Svg width={32} height={10} aria-hidden>
            <Path
              d="M0 5H32"
              stroke={n === 0 ? palette.accent : palette.ink}
              strokeWidth={n === 0 ? 2 : 1.4}
              {...(dashOf(n) ? { strokeDasharray: dashOf(n) } : {})}
            />
          </Svg>
          <Txt as="small">{withoutUnit(title)}</Txt>
        </View>
      ))}
    </View>
  );
}

/** A recorded curve over its time, with the segments found in it as bands. */
export function TraceChart({
  label,
  lines,
  segments,
  chosen,
  view,
  rangePsi,
  unit,
  width,
  height,
  onView,
}: TraceChartProps) {
  const palette = usePalette();
  const [drawn, setDrawn] = useState<readonly [from: number, to: number] | null>(null);
  const x = scaleLinear()
    .domain([...view])
    .range([LEFT, width - 4]);
  const y = scaleLinear()
    .domain(rangePsi.map((psi) => fromPsi(psi, unit)))
    .nice(4)
    .range([height - BOTTOM, 8]);
  const at = ({ s, psi }: DrawnPoint) => `${x(s).toFixed(1)} ${y(fromPsi(psi, unit)).toFixed(1)}`;
  const path = (points: readonly DrawnPoint[]) =>
    points.map((point, i) => `${i === 0 ? 'M' : 'L'}${at(point)}`).join('');
  const finish = ([from, to]: readonly [number, number]) => {
    const [left, right] = from < to ? [from, to] : [to, from];
    if (right - left < LEAST_DRAWN) return;
    onView?.([x.invert(Math.max(LEFT, left)), x.invert(Math.min(width - 4, right))]);
  };
  const inView = segments.filter((each) => each.toS >= view[0] && each.fromS <= view[1]);
  return (
    <View
      role="img"
      aria-label={label}
      style={[
        { width, height },
        onView ? ({ cursor: 'crosshair', touchAction: 'pan-y' } as object) : {},
      ]}
      {...(onView ? (drawsStretch(drawn, setDrawn, finish) as object) : {})}
    >
      <Svg width={width} height={height} aria-hidden>
        {inView
          .filter((each) => BANDS.has(each.kind))
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
          <SvgText
            x={2}
            y={height - 6}
            fontSize={12}
            fontFamily={NUMERAL_FACE}
            fill={palette.quiet}
          >
            {unit}
          </SvgText>
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
        {lines.map((points, n) => (
          <Path
            key={n}
            d={path(points)}
            stroke={n === 0 ? palette.accent : palette.ink}
            strokeWidth={n === 0 ? 1.8 : 1.2}
            {...(dashOf(n) ? { strokeDasharray: dashOf(n) } : {})}
            fill="none"
          />
        ))}
        {drawn ? (
          <Rect
            x={Math.min(...drawn)}
            y={8}
            width={Math.abs(drawn[1] - drawn[0])}
            height={height - BOTTOM - 8}
            fill={palette.accent}
            fillOpacity={0.15}
            stroke={palette.accent}
          />
        ) : null}
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
