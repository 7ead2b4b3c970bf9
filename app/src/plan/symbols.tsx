import type { PartRole } from '@keen-bleed/core';
import type { Box } from '@keen-bleed/core/drawing';
import type { DeviceState } from '@keen-bleed/core/twin';
import { Circle, G, Path, Rect } from 'react-native-svg';
import type { Palette } from '../theme/palette';

/*
 * Graphic symbols after ISO 1219-1, from memory: a box for each position of a valve, with its flow paths; triangles for
 * air as the fluid and for pilots; zigzags for springs.
 */

interface SymbolProps {
  role: PartRole;
  box: Box;
  palette: Palette;
  /** The position a valve stands in; null where nothing runs. */
  state: DeviceState | null;
  hasSpring: boolean;
  ink: string;
}

/** Valves with three positions: off (delivery to exhaust), hold (all shut), on (supply to delivery). */
const THREE: ReadonlySet<PartRole> = new Set([
  'foot-valve',
  'relay',
  'relay-emergency',
  'park-relay',
  'hand-valve',
  'hand-brake-valve',
  'trailer-control-valve',
  'load-sensing',
  'modulating-valve',
  'antilock-modulator',
]);
/** Valves with two. */
const TWO: ReadonlySet<PartRole> = new Set([
  'park-control',
  'trailer-supply-control',
  'tractor-protection',
]);

/** How many positions the symbol of a role has. */
export const positionsOf = (role: PartRole): readonly DeviceState[] =>
  THREE.has(role) ? ['off', 'hold', 'on'] : TWO.has(role) ? ['off', 'on'] : [];

/** The flow paths of one position in a box: a slanted way through, or bars that shut. */
export function positionPath(state: DeviceState, { x, y, width, height }: Box): string {
  const [cx, cy] = [x + width / 2, y + height / 2];
  const [w, h] = [width * 0.26, height * 0.3];
  const shut = (px: number, py: number, up: boolean) =>
    `M${px - 2.5} ${py}h5M${px} ${py}v${up ? -h * 0.8 : h * 0.8}`;
  if (state === 'on') return `M${cx - w} ${cy + h}L${cx + w} ${cy - h}m-1 4l1 -4l-4 1.5`;
  if (state === 'hold') return `${shut(cx, cy - 2, true)}${shut(cx, cy + 2, false)}`;
  return `M${cx + w} ${cy - h}L${cx - w} ${cy + h}m4 -1.5l-4 1.5l1 -4`;
}

/** A part's graphic symbol in its box. */
export function PartSymbol({ role, box, palette, state, hasSpring, ink }: SymbolProps) {
  const { x, y, width, height } = box;
  const [cx, cy] = [x + width / 2, y + height / 2];
  const line = { stroke: ink, strokeWidth: 1.4, fill: 'none' } as const;
  const positions = positionsOf(role);
  if (positions.length > 0) {
    const across = width >= height;
    const share = (across ? width : height) / positions.length;
    return (
      <G>
        {positions.map((each, n) => {
          const cell = across
            ? { x: x + n * share, y, width: share, height }
            : { x, y: y + n * share, width, height: share };
          return (
            <G key={each}>
              <Rect
                {...cell}
                fill={each === state ? palette.accent : palette.ground}
                stroke={ink}
                strokeWidth={1.2}
              />
              <Path
                d={positionPath(each, cell)}
                stroke={each === state ? palette.onAccent : ink}
                strokeWidth={1.2}
                fill="none"
              />
            </G>
          );
        })}
      </G>
    );
  }
  const face = { ...line, fill: palette.ground };
  switch (role) {
    case 'tank':
      return <Rect {...box} rx={Math.min(width, height) / 2.4} {...face} />;
    case 'compressor':
      return (
        <G>
          <Circle cx={cx} cy={cy} r={width / 2} {...face} />
          <Path d={`M${cx} ${y + 4}l6 10h-12z`} {...line} />
        </G>
      );
    case 'dryer':
    case 'pre-cleaner':
      return (
        <G>
          <Path d={`M${cx} ${y}L${x + width} ${cy}L${cx} ${y + height}L${x} ${cy}z`} {...face} />
          <Path
            d={
              role === 'dryer' ? `M${cx - 6} ${cy}h2m3 0h2m3 0h2` : `M${cx} ${y + 4}v${height - 8}`
            }
            {...line}
          />
        </G>
      );
    case 'check-valve':
      return (
        <G>
          <Circle cx={cx} cy={cy} r={5} {...face} />
          <Path d={`M${cx - 7} ${cy - 7}L${cx} ${cy + 7}L${cx + 7} ${cy - 7}`} {...line} />
        </G>
      );
    case 'double-check':
      return (
        <G>
          <Rect {...box} {...face} />
          <Circle cx={cx - width * 0.16} cy={cy} r={4} {...line} />
          <Path
            d={`M${x + 4} ${cy - 5}l4 5l-4 5M${x + width - 4} ${cy - 5}l-4 5l4 5M${cx} ${y}v4`}
            {...line}
          />
        </G>
      );
    case 'quick-release':
      return (
        <G>
          <Rect {...box} {...face} />
          <Path
            d={`M${cx} ${y}v5M${x + 4} ${cy + 3}h${width - 8}M${cx} ${cy + 3}v-4m-3 -2h6M${cx - 4} ${y + height}l4 4l4 -4`}
            {...line}
          />
        </G>
      );
    case 'safety-valve':
      return (
        <G>
          <Rect {...box} {...face} />
          <Path
            d={`M${x + 6} ${y + height - 3}V${y + 4}m-2.5 4l2.5 -4l2.5 4M${x + width - 8} ${y + 3}l4 3l-6 3l6 3l-6 3`}
            {...line}
          />
        </G>
      );
    case 'governor':
      return (
        <G>
          <Rect {...box} {...face} />
          <Path
            d={`M${x + 4} ${y + height - 4}L${x + width - 4} ${y + 4}m-5 0h5v5M${x + 4} ${y + 4}l3 3`}
            {...line}
          />
        </G>
      );
    case 'gauge':
      return (
        <G>
          <Circle cx={cx} cy={cy} r={height / 2} {...face} />
          <Path d={`M${cx - 4} ${cy + 5}L${cx + 4} ${cy - 5}m-4 1l4 -1l-0.5 4`} {...line} />
        </G>
      );
    case 'stop-lamp-switch':
    case 'low-air-switch':
      return (
        <G>
          <Rect {...box} {...face} />
          <Path d={`M${x + 4} ${cy}h4l6 -5m0 5h4`} {...line} />
        </G>
      );
    case 'drain':
      return <Path d={`M${cx - 8} ${cy - 5}h16l-8 10zM${cx} ${cy + 5}v4`} {...face} />;
    case 'cock':
      return (
        <Path
          d={`M${x + 2} ${y + 3}L${x + width - 2} ${y + height - 3}V${y + 3}L${x + 2} ${y + height - 3}z`}
          {...face}
        />
      );
    case 'coupler':
      return (
        <G>
          <Circle cx={cx} cy={cy} r={height / 2} {...face} />
          <Path d={`M${cx - 4} ${cy - 6}q6 6 0 12M${cx + 4} ${cy - 6}q-6 6 0 12`} {...line} />
        </G>
      );
    case 'chamber': {
      const across = width >= height;
      // A single-acting cylinder: its rod points to the wheel it moves, its spring stands behind the piston.
      return (
        <G>
          <Rect {...box} {...face} />
          <Path
            d={
              across
                ? `M${cx} ${y}v${height}${hasSpring ? `M${cx + 3} ${cy}l3 -5l4 10l4 -10l2 5` : ''}M${x + 4} ${cy}h${width / 2 - 8}`
                : `M${x} ${cy}h${width}${hasSpring ? `M${cx} ${cy + 3}l-5 3l10 4l-10 4l5 2` : ''}M${cx} ${y + 4}v${height / 2 - 8}`
            }
            {...line}
          />
        </G>
      );
    }
    case 'line':
      return <Circle cx={cx} cy={cy} r={3} fill={ink} />;
    case 'accessory':
      return (
        <G>
          <Rect {...box} {...face} />
          <Path
            d={`M${x + 3} ${cy + 3}h${width - 8}m-4 -3l4 3l-4 3M${cx} ${y + 2}l3 2l-5 2`}
            {...line}
          />
        </G>
      );
    default:
      return <Rect {...box} {...face} />;
  }
}
