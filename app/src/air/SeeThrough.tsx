import type { PressureUnit, Unit } from '@keen-bleed/contract';
import { sayLevel } from '@keen-bleed/core';
import { memo } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import Svg, { G, Path, Rect } from 'react-native-svg';
import type { Palette } from '../theme/palette';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import type { Circuit } from '@keen-bleed/core/twin';
import { DeviceSign, type DeviceState } from './DeviceSign';
import type { DrawnRig } from './drawnRig';
import { PlaceWords } from './PlaceWords';

/** What moves in a rig at one moment. */
export interface MovingAir {
  /** By place and by way; gauge psi and scfm. */
  psi: readonly number[];
  scfm: readonly number[];
  /** Valves that meter, by id. */
  devices: readonly { id: string; state: DeviceState }[];
}

interface SeeThroughProps {
  rig: DrawnRig;
  /** Null where the rig is only drawn, with nothing in it. */
  frame: MovingAir | null;
  unit: PressureUnit;
  /** Whether places carry their ports' numbers beside their names. */
  ports: Unit['ports'];
  chosen: string | null;
  onChoose: (place: string) => void;
}

/** A flow under this is not seen, scfm. */
const SEEN_SCFM = 0.02;
/** Full of colour at this pressure, psi. */
const FULL_PSI = 125;

const colourOf = (palette: Palette, circuit: Circuit) =>
  ({ supply: palette.supplyAir, service: palette.serviceAir, park: palette.parkAir })[circuit];

/** Thickness of a line by what flows in it: it grows with the logarithm, so that a leak is seen beside a filling. */
const thickness = (scfm: number) =>
  scfm < SEEN_SCFM ? 1.5 : Math.min(9, 2.5 + 1.5 * Math.log2(1 + scfm * 4));

/** A rig's air: places as boxes that fill, ways as lines that thicken and are dashed where air moves. */
export const SeeThrough = memo(function SeeThrough({
  rig,
  frame,
  unit,
  ports,
  chosen,
  onChoose,
}: SeeThroughProps) {
  const palette = usePalette();
  const { layouts, places, ways } = rig;
  const layout = useWide() ? layouts.across : layouts.down;
  return (
    <ScrollView horizontal aria-label="The rig’s air" tabIndex={0}>
      <View style={{ width: layout.width, height: layout.height }}>
        <Svg width={layout.width} height={layout.height} aria-hidden>
          {ways.map((way, e) => {
            const points = layout.ways[e] ?? [];
            if (points.length === 0) return null;
            const flow = Math.abs(frame?.scfm[e] ?? 0);
            const moves = flow >= SEEN_SCFM;
            return (
              <Path
                key={way.id}
                d={points.map(({ x, y }, n) => `${n === 0 ? 'M' : 'L'}${x} ${y}`).join('')}
                stroke={colourOf(palette, places[way.from]?.circuit ?? 'service')}
                strokeWidth={thickness(flow)}
                strokeOpacity={moves ? 1 : 0.55}
                {...(moves ? { strokeDasharray: '9 4' } : {})}
                fill="none"
              />
            );
          })}
          {ways.map((way, e) => {
            const points = layout.ways[e] ?? [];
            const middle = points[Math.floor(points.length / 2)];
            if (!way.device || !middle) return null;
            const passes = Math.abs(frame?.scfm[e] ?? 0) >= SEEN_SCFM;
            const state =
              frame?.devices.find(({ id }) => id === way.valve)?.state ?? (passes ? 'on' : 'off');
            return <DeviceSign key={way.id} {...middle} state={state} />;
          })}
          {ways.map((way, e) => {
            const from = way.to < 0 ? layout.nodes[way.from] : undefined;
            const flow = frame?.scfm[e] ?? 0;
            if (!from || flow < SEEN_SCFM) return null;
            const x = from.x + from.width / 2;
            const y = from.y + from.height;
            return (
              <Path
                key={way.id}
                d={`M${x} ${y}v7m-4 -4l4 4l4 -4`}
                stroke={palette.ink}
                strokeWidth={Math.min(5, thickness(flow))}
                fill="none"
              />
            );
          })}
          {places.map(({ id, short, circuit, ports: numbers }, i) => {
            const box = layout.nodes[i];
            if (!box) return null;
            const psi = Math.max(0, frame?.psi[i] ?? 0);
            const share = Math.min(1, psi / FULL_PSI);
            const colour = colourOf(palette, circuit);
            return (
              <G key={id}>
                <Rect
                  x={box.x}
                  y={box.y}
                  width={box.width}
                  height={box.height}
                  fill={palette.ground}
                  stroke={id === chosen ? palette.ink : colour}
                  strokeWidth={id === chosen ? 3 : 1.5}
                />
                <Rect
                  x={box.x + 1.5}
                  y={box.y + box.height - 6.5}
                  width={(box.width - 3) * share}
                  height={5}
                  fill={colour}
                />
                <PlaceWords
                  short={short}
                  port={ports === 'numbers' ? numbers : null}
                  box={box}
                  said={frame ? sayLevel(psi, unit) : null}
                />
              </G>
            );
          })}
        </Svg>
        {places.map(({ id, name }, i) => {
          const box = layout.nodes[i];
          if (!box) return null;
          return (
            <Pressable
              key={id}
              role="button"
              aria-label={name}
              aria-pressed={id === chosen}
              onPress={() => onChoose(id)}
              style={{
                position: 'absolute',
                left: box.x,
                top: box.y,
                width: box.width,
                height: box.height,
              }}
            />
          );
        })}
      </View>
    </ScrollView>
  );
});
