import type { Gauge } from '@keen-bleed/contract';
import { sayPressure } from '@keen-bleed/core';
import { useMemo } from 'react';
import { View } from 'react-native';
import Svg, { G, Path, Text as SvgText } from 'react-native-svg';
import { ladderScale } from '@keen-bleed/core';
import { FRAME_MS } from './frameMs';
import { NUMERAL_FACE, TEXT_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';

interface NeedleLadderProps {
  gauge: Gauge;
  /** One needle for each gauge the cab has, from the left. */
  needles: readonly { title: string; psi: number }[];
  width: number;
  height: number;
}

const NUMBERS = 46;
const HEAD = 26;
/** Under this a title is set smaller, px. */
const NARROW = 48;

/**
 * Between two moments of the rig a needle glides by itself, apart from the page's own thread: fewer moments are told, and it
 * moves as smoothly. The browser's own styles, which the types of native views do not know.
 */
const glides = {
  transitionProperty: 'transform',
  transitionDuration: `${FRAME_MS}ms`,
  transitionTimingFunction: 'linear',
} as object;

/** The cab's gauges on one ladder: a needle across each bay of it. */
export function NeedleLadder({ gauge, needles, width, height }: NeedleLadderProps) {
  const palette = usePalette();
  const top = gauge.unit === 'psi' ? gauge.top : 150;
  const rails = height - HEAD;
  const scale = useMemo(() => ladderScale(gauge, [0, top], rails), [gauge, top, rails]);
  const left = NUMBERS + 8;
  const bay = (width - left - 6) / Math.max(1, needles.length);
  const rungs = scale.lines.filter((line) => line.label !== null);
  const ticks = scale.lines.filter((line) => line.label === null);
  const right = left + bay * needles.length;
  const said = needles.map(({ title, psi }) => `${title} ${sayPressure(psi, gauge.unit)}`);
  return (
    <View role="img" aria-label={`Gauges: ${said.join(', ')}`} style={{ width, height }}>
      <Svg width={width} height={height} aria-hidden>
        <G transform={`translate(0 ${HEAD})`}>
          <Path
            d={ticks.map(({ y }) => `M${left} ${y}H${left + 10}`).join('')}
            stroke={palette.edge}
          />
          <Path
            d={rungs.map(({ y }) => `M${left} ${y}H${right}`).join('')}
            stroke={palette.ink}
            strokeWidth={1.4}
          />
          {rungs.map(({ psi, y, label }) => (
            <SvgText
              key={psi}
              x={NUMBERS}
              y={y + 5}
              fontSize={15}
              fontFamily={NUMERAL_FACE}
              fill={palette.ink}
              textAnchor="end"
            >
              {label}
            </SvgText>
          ))}
          <Path
            d={needles
              .map((_, i) => left + i * bay)
              .concat(right)
              .map((x) => `M${x} 0V${rails}`)
              .join('')}
            stroke={palette.ink}
            strokeWidth={3}
          />
        </G>
        {needles.map(({ title }, i) => (
          <SvgText
            key={title}
            x={left + (i + 0.5) * bay}
            y={15}
            fontSize={bay < NARROW ? 11 : 14}
            fontFamily={TEXT_FACE}
            fill={palette.quiet}
            textAnchor="middle"
          >
            {title}
          </SvgText>
        ))}
      </Svg>
      {needles.map(({ title, psi }, i) => (
        <View
          key={title}
          style={[
            {
              position: 'absolute',
              top: HEAD - 3.5,
              left: left + i * bay,
              width: bay,
              height: 7,
              backgroundColor: palette.accent,
              transform: [{ translateY: scale.y(Math.min(psi, top)) }],
            },
            glides,
          ]}
        />
      ))}
    </View>
  );
}
