import type { JobReading } from '@keen-bleed/contract';
import { sayReading } from '@keen-bleed/core';
import { View } from 'react-native';
import Svg, { Circle, Line, Path } from 'react-native-svg';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';

const HEIGHT = 30;
const EDGE = 10;
const RAIL_TOP = 14;
const RAIL = 8;

/** What was read before the repair and after it, each reading on a ladder of its own, with what was expected. */
export function BeforeAfter({ readings }: { readings: readonly JobReading[] }) {
  const palette = usePalette();
  const { unit: sayIn } = usePrefs();
  const [box, onBox] = useBoxSize();
  const told = readings.filter(({ after }) => after !== null);
  if (told.length === 0) return null;
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        Before and after
      </Txt>
      <Txt as="small" tone="quiet">
        The hollow flag is before, the solid one after; the ring is what a sound one should read.
      </Txt>
      <View role="list" aria-label="Before and after" onLayout={onBox} style={{ gap: space.step }}>
        {told.map(({ title, unit, before, after, expected }) => {
          const values = [before, after, expected].filter((each): each is number => each !== null);
          const most = Math.max(...values, 0.001);
          // Rates and times start at nothing; pressures are told from near their least.
          const least = unit === 'psi' ? Math.min(...values) * 0.9 : 0;
          const x = (value: number) =>
            EDGE + ((value - least) / Math.max(0.001, most - least)) * (box.width - 2 * EDGE);
          const say = (value: number) => sayReading(value, unit, sayIn);
          const words = [
            before === null ? null : `before ${say(before)}`,
            after === null ? null : `after ${say(after)}`,
            expected === null ? null : `expected ${say(expected)}`,
          ].filter(Boolean);
          return (
            <View key={title} role="listitem">
              <Txt as="smallBold">{title}</Txt>
              <Txt as="small">{words.join(', ')}</Txt>
              {box.width > 0 ? (
                <Svg width={box.width} height={HEIGHT} aria-hidden>
                  {[RAIL_TOP, RAIL_TOP + RAIL].map((y) => (
                    <Line
                      key={y}
                      x1={EDGE}
                      x2={box.width - EDGE}
                      y1={y}
                      y2={y}
                      stroke={palette.ink}
                      strokeWidth={1.2}
                    />
                  ))}
                  {expected === null ? null : (
                    <Circle
                      cx={x(expected)}
                      cy={RAIL_TOP + RAIL / 2}
                      r={6}
                      stroke={palette.accent}
                      strokeWidth={2}
                      fill="none"
                    />
                  )}
                  {before === null ? null : (
                    <Path
                      d={`M${x(before) - 6} 2H${x(before) + 6}L${x(before)} ${RAIL_TOP}Z`}
                      fill="none"
                      stroke={palette.ink}
                      strokeWidth={1.6}
                    />
                  )}
                  {after === null ? null : (
                    <Path
                      d={`M${x(after) - 6} 2H${x(after) + 6}L${x(after)} ${RAIL_TOP}Z`}
                      fill={palette.ink}
                    />
                  )}
                </Svg>
              ) : null}
            </View>
          );
        })}
      </View>
    </View>
  );
}
