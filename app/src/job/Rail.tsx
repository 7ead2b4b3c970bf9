import { stations, stationWords, type Station } from '@keen-bleed/core';
import { View } from 'react-native';
import Svg, { Line, Path, Rect } from 'react-native-svg';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';

/** Where the marker of a rail stands, and what it says of it. */
export type RailTone = 'holds' | 'open' | 'passed';

const MARK = 8;
const TOP = 16;
const RAIL = 10;

/** Places of the stations on a rail of a width, px; the first and the last leave room for half a marker. */
export const stationAt = (station: Station, width: number): number =>
  MARK + 1 + (stations.indexOf(station) / (stations.length - 1)) * (width - 2 * MARK - 2);

interface RailProps {
  station: Station;
  tone: RailTone;
  width: number;
  /** It is over: the marker is past the end. */
  done?: boolean;
}

/** The ladder lying down: two rails with a rung at each station, filled as far as the job has come. */
export function Rail({ station, tone, width, done = false }: RailProps) {
  const palette = usePalette();
  const colour = { holds: palette.fail, open: palette.accent, passed: palette.pass }[
    done ? 'passed' : tone
  ];
  const at = stationAt(done ? 'release' : station, width);
  const from = stationAt('found', width);
  const to = stationAt('release', width);
  const came = stations.indexOf(done ? 'release' : station);
  return (
    <Svg width={width} height={TOP + RAIL + 2} aria-hidden>
      <Rect
        x={from}
        y={TOP}
        width={Math.max(0, at - from)}
        height={RAIL}
        fill={palette.hatch}
        fillOpacity={0.55}
      />
      <Line x1={from} x2={to} y1={TOP} y2={TOP} stroke={palette.ink} strokeWidth={1.5} />
      <Line
        x1={from}
        x2={to}
        y1={TOP + RAIL}
        y2={TOP + RAIL}
        stroke={palette.ink}
        strokeWidth={1.5}
      />
      {stations.slice(0, came + 1).map((each) => (
        <Line
          key={each}
          x1={stationAt(each, width)}
          x2={stationAt(each, width)}
          y1={TOP - 1}
          y2={TOP + RAIL + 1}
          stroke={palette.ink}
          strokeWidth={3}
        />
      ))}
      <Path d={`M${at - MARK} ${TOP - 14}H${at + MARK}L${at} ${TOP - 3}Z`} fill={colour} />
    </Svg>
  );
}

/** The names of the stations over a rail, each at its place. */
export function StationHeads({ width, at }: { width: number; at?: Station }) {
  return (
    <View style={{ width, height: 22 }} aria-hidden>
      {stations.map((station) => (
        <View
          key={station}
          style={{
            position: 'absolute',
            left: stationAt(station, width) - 40,
            width: 80,
            alignItems:
              station === 'found' ? 'flex-start' : station === 'release' ? 'flex-end' : 'center',
            ...(station === 'found' ? { left: 0 } : {}),
            ...(station === 'release' ? { left: width - 80 } : {}),
          }}
        >
          <Txt as={station === at ? 'smallBold' : 'small'} tone={station === at ? 'ink' : 'quiet'}>
            {stationWords[station]}
          </Txt>
        </View>
      ))}
    </View>
  );
}
