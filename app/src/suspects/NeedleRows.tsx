import type { Needle } from '@keen-bleed/core/diagnosis';
import { View } from 'react-native';
import Svg, { Circle, Line, Rect } from 'react-native-svg';
import { usePalette } from '../theme/usePalette';
import { space } from '../theme/space';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';

const HEIGHT = 20;
const EDGE = 6;

/** Each figure of the run: where sound rigs lie, what was read, and what the suspect would make of it. */
export function NeedleRows({ needles }: { needles: readonly Needle[] }) {
  const palette = usePalette();
  const [box, onBox] = useBoxSize();
  return (
    <View
      role="list"
      aria-label="Predicted over measured"
      onLayout={onBox}
      style={{ gap: space.near }}
    >
      <View style={{ flexDirection: 'row', gap: space.step, flexWrap: 'wrap' }}>
        <Key shape="band" title="sound rigs" />
        <Key shape="read" title="read" />
        <Key shape="would" title="with this fault" />
      </View>
      {needles.map(({ title, read, sound, would, said }) => {
        const from = Math.min(read, sound.low, would);
        const to = Math.max(read, sound.high, would);
        const wide = Math.max(1e-6, to - from);
        const x = (value: number) => EDGE + ((value - from) / wide) * (box.width - 2 * EDGE);
        return (
          <View key={title} role="listitem">
            <Txt as="small">{`${title}: read ${said.read}, sound ${said.sound}, with this ${said.would}`}</Txt>
            {box.width > 0 ? (
              <Svg width={box.width} height={HEIGHT} aria-hidden>
                <Line
                  x1={EDGE}
                  x2={box.width - EDGE}
                  y1={HEIGHT / 2}
                  y2={HEIGHT / 2}
                  stroke={palette.rule}
                />
                <Rect
                  x={x(sound.low)}
                  width={Math.max(2, x(sound.high) - x(sound.low))}
                  y={HEIGHT / 2 - 4}
                  height={8}
                  fill={palette.edge}
                  opacity={0.55}
                />
                <Circle
                  cx={x(would)}
                  cy={HEIGHT / 2}
                  r={5}
                  stroke={palette.accent}
                  strokeWidth={2}
                  fill="none"
                />
                <Rect x={x(read) - 1.5} width={3} y={1} height={HEIGHT - 2} fill={palette.ink} />
              </Svg>
            ) : null}
          </View>
        );
      })}
    </View>
  );
}

function Key({ shape, title }: { shape: 'band' | 'read' | 'would'; title: string }) {
  const palette = usePalette();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.hair }}>
      <Svg width={14} height={14} aria-hidden>
        {shape === 'band' ? (
          <Rect x={0} y={4} width={14} height={7} fill={palette.edge} opacity={0.55} />
        ) : shape === 'read' ? (
          <Rect x={5} y={0} width={3} height={14} fill={palette.ink} />
        ) : (
          <Circle cx={7} cy={7} r={5} stroke={palette.accent} strokeWidth={2} fill="none" />
        )}
      </Svg>
      <Txt as="small" tone="quiet">
        {title}
      </Txt>
    </View>
  );
}
