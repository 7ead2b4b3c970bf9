import { scaleLinear, scalePoint } from 'd3-scale';
import { line } from 'd3-shape';
import { max, min } from 'd3-array';
import Svg, { Circle, Path } from 'react-native-svg';
import { usePalette } from '../theme/usePalette';

const WIDTH = 72;
const HEIGHT = 34;
const PAD = 4;

/** A figure's last few values, without axes: only which way it goes. `floor` is the least top of its scale. */
export function Spark({ values, floor }: { values: readonly number[]; floor: number }) {
  const palette = usePalette();
  if (values.length < 2) return null;
  const x = scalePoint<number>()
    .domain(values.map((_, index) => index))
    .range([PAD, WIDTH - PAD]);
  const y = scaleLinear()
    // A level hold may come out a hair under zero.
    .domain([Math.min(0, min(values) ?? 0), Math.max(floor, max(values) ?? floor)])
    .range([HEIGHT - PAD, PAD]);
  const path = line<number>()
    .x((_, index) => x(index) ?? 0)
    .y((value) => y(value))([...values]);
  return (
    <Svg width={WIDTH} height={HEIGHT} aria-hidden>
      <Path
        d={path ?? ''}
        fill="none"
        stroke={palette.ink}
        strokeWidth={2}
        strokeLinejoin="round"
      />
      <Circle cx={x(values.length - 1) ?? 0} cy={y(values.at(-1) ?? 0)} r={3} fill={palette.ink} />
    </Svg>
  );
}
