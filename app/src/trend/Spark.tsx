import Svg, { Circle, Polyline } from 'react-native-svg';
import { usePalette } from '../theme/usePalette';

const WIDTH = 72;
const HEIGHT = 34;
const PAD = 4;

/**
 * A figure's last few values, without axes: only which way it goes. `floor` is the least top of its scale. Two lines of
 * arithmetic stand in for a charting library, which would be a tenth of what comes before the first screen.
 */
export function Spark({ values, floor }: { values: readonly number[]; floor: number }) {
  const palette = usePalette();
  if (values.length < 2) return null;
  // A level hold may come out a hair under zero.
  const low = Math.min(0, ...values);
  const high = Math.max(floor, ...values);
  const points = values.map((value, index) => ({
    x: PAD + (index / (values.length - 1)) * (WIDTH - 2 * PAD),
    y: HEIGHT - PAD - ((value - low) / (high - low)) * (HEIGHT - 2 * PAD),
  }));
  const last = points.at(-1);
  return (
    <Svg width={WIDTH} height={HEIGHT} aria-hidden>
      <Polyline
        points={points.map(({ x, y }) => `${x},${y}`).join(' ')}
        fill="none"
        stroke={palette.ink}
        strokeWidth={2}
        strokeLinejoin="round"
      />
      <Circle cx={last?.x} cy={last?.y} r={3} fill={palette.ink} />
    </Svg>
  );
}
