import type { Gauge } from '@keen-bleed/contract';
import { sayLevel, sayPressure } from '@keen-bleed/core';
import { memo, useId, useMemo, useRef } from 'react';
import { View } from 'react-native';
import Svg, {
  Circle,
  Defs,
  G,
  Path,
  Pattern,
  Polyline,
  Rect,
  Text as SvgText,
} from 'react-native-svg';
import { NUMERAL_FACE, TEXT_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';
import { ladderScale, spreadApart, type LadderScale } from '@keen-bleed/core';

/** A band on the ladder in which something must happen. */
export interface LadderWindow {
  fromPsi: number;
  toPsi: number;
  label: string;
  /** The window of the step that is waited on. */
  awaited?: boolean;
}

/** A mark on the ladder. */
export interface LadderFlag {
  id: string;
  psi: number;
  /** Weaker, for marks of steps gone by. */
  past?: boolean;
}

interface LadderProps {
  gauge: Gauge;
  rangePsi: readonly [number, number];
  windows: readonly LadderWindow[];
  flags: readonly LadderFlag[];
  /** Where the needle is thought to be, or null for a ladder that is only looked at. */
  needlePsi: number | null;
  /** The needle is only suggested: it is drawn hollow until somebody sets it. */
  suggested?: boolean;
  /** Where a linked gauge stands, drawn beside what is proposed. */
  livePsi?: number | null;
  height: number;
  width: number;
  /** Given, the needle can be dragged. */
  onDrag?: (psi: number) => void;
  /** Given, the arrows move the needle by this many of its smallest moves. */
  onNudge?: (moves: number) => void;
}

const NUMBERS_WIDTH = 46;
const RAILS_WIDTH = 78;
const LEFT = NUMBERS_WIDTH + 8;
const RIGHT = LEFT + RAILS_WIDTH;
const FLAG_GAP = 21;
const FLAG_LENGTH = 52;

/** The ladder: a pressure scale as two rails with rungs, windows hatched, marks as flags, the needle across. */
export function Ladder(props: LadderProps) {
  const { gauge, rangePsi, windows, flags, needlePsi, livePsi, height, width, onDrag, onNudge } =
    props;
  const { suggested = false } = props;
  const [low, high] = rangePsi;
  const scale = useMemo(() => ladderScale(gauge, [low, high], height), [gauge, low, high, height]);
  const box = useRef<View>(null);
  const drag = (pageY: number) => {
    const top = (box.current as unknown as HTMLElement | null)?.getBoundingClientRect().top ?? 0;
    onDrag?.(Math.min(high, Math.max(low, scale.psi(pageY - top))));
  };
  const drawing = (
    <Svg width={width} height={height} aria-hidden>
      <Windows scale={scale} windows={windows} flags={flags} height={height} />
      <Frame scale={scale} height={height} />
      <Flags scale={scale} flags={flags} gauge={gauge} height={height} />
      {typeof livePsi === 'number' ? (
        <LiveMark y={Math.min(height, Math.max(0, scale.y(livePsi)))} />
      ) : null}
      {needlePsi !== null ? <Needle y={scale.y(needlePsi)} suggested={suggested} /> : null}
    </Svg>
  );
  if (!onDrag || needlePsi === null) {
    return (
      <View role="img" aria-label={describe(props)} style={{ width, height }}>
        {drawing}
      </View>
    );
  }
  return (
    <View
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label="Needle"
      aria-orientation="vertical"
      aria-valuemin={low}
      aria-valuemax={high}
      aria-valuenow={needlePsi}
      aria-valuetext={`${sayPressure(needlePsi, gauge.unit)}${suggested ? ', suggested' : ''}`}
      onStartShouldSetResponder={() => true}
      onMoveShouldSetResponder={() => true}
      onResponderGrant={(event) => drag(event.nativeEvent.pageY)}
      onResponderMove={(event) => drag(event.nativeEvent.pageY)}
      {...({
        onKeyDown: (event: {
          key: string;
          preventDefault: () => void;
          stopPropagation: () => void;
        }) => {
          const moves = {
            ArrowUp: 1,
            ArrowRight: 1,
            ArrowDown: -1,
            ArrowLeft: -1,
            PageUp: 10,
            PageDown: -10,
          }[event.key];
          if (moves === undefined) return;
          event.preventDefault();
          event.stopPropagation();
          onNudge?.(moves);
        },
      } as object)}
      // A drag that began to select the words beside the rails would be taken from the needle.
      style={[
        { width, height, userSelect: 'none' },
        { touchAction: 'none', cursor: 'ns-resize' } as object,
      ]}
    >
      {drawing}
    </View>
  );
}

function describe({ gauge, windows, flags }: LadderProps): string {
  const say = (psi: number) => sayPressure(psi, gauge.unit);
  const parts = [
    ...flags.map((flag) => `mark at ${say(flag.psi)}`),
    ...windows.map((each) => `${each.label} from ${say(each.fromPsi)} to ${say(each.toPsi)}`),
  ];
  return `Ladder: ${parts.join(', ') || 'no marks yet'}`;
}

interface FrameProps {
  scale: LadderScale;
  windows: readonly LadderWindow[];
  flags: readonly LadderFlag[];
  height: number;
}

/** Windows with their labels. */
const Windows = memo(function Windows({ scale, windows, flags, height }: FrameProps) {
  const palette = usePalette();
  // An id of its own, since two ladders may share a page.
  const hatch = `hatch${useId().replaceAll(/[^a-zA-Z0-9]/g, '')}`;
  return (
    <G>
      <Defs>
        <Hatch id={`${hatch}awaited`} stroke={palette.quiet} strokeWidth={3.2} />
        <Hatch id={hatch} stroke={palette.hatch} strokeWidth={2.4} />
      </Defs>
      {windows.map((each) => {
        const top = Math.max(0, scale.y(each.toPsi));
        const bottom = Math.min(height, scale.y(each.fromPsi));
        const middle = (top + bottom) / 2;
        const covered = flags.some((flag) => Math.abs(scale.y(flag.psi) - middle) < FLAG_GAP);
        if (bottom <= top) return null;
        return (
          <G key={each.label}>
            <Rect
              x={LEFT}
              y={top}
              width={RAILS_WIDTH}
              height={bottom - top}
              fill={`url(#${hatch}${each.awaited ? 'awaited' : ''})`}
            />
            <Path
              d={`M${LEFT} ${top}H${RIGHT}M${LEFT} ${bottom}H${RIGHT}`}
              stroke={palette.hatch}
              strokeWidth={1.5}
            />
            {covered
              ? null
              : linesOf(each.label).map((line, n, all) => (
                  <SvgText
                    key={line}
                    x={RIGHT + 10}
                    y={middle + 5 + (n - (all.length - 1) / 2) * LABEL_LINE}
                    fontSize={14}
                    fontFamily={TEXT_FACE}
                    fill={palette.quiet}
                  >
                    {line}
                  </SvgText>
                ))}
          </G>
        );
      })}
    </G>
  );
});

/** Longest label that stands in one line beside the rails. */
const LABEL_FITS = 10;
const LABEL_LINE = 14;

/** A label's lines: a long one is broken at its last space. */
function linesOf(label: string): string[] {
  const at = label.length > LABEL_FITS ? label.lastIndexOf(' ') : -1;
  return at < 0 ? [label] : [label.slice(0, at), label.slice(at + 1)];
}

function Hatch({ id, stroke, strokeWidth }: { id: string; stroke: string; strokeWidth: number }) {
  return (
    <Pattern
      id={id}
      width={7}
      height={7}
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <Path d="M0 0V7" stroke={stroke} strokeWidth={strokeWidth} />
    </Pattern>
  );
}

/** Rails, rungs and ticks. The lines of one kind are one path: a dial has up to a hundred of them. */
const Frame = memo(function Frame({ scale, height }: Pick<FrameProps, 'scale' | 'height'>) {
  const palette = usePalette();
  const rungs = scale.lines.filter((line) => line.label !== null);
  const ticks = scale.lines.filter((line) => line.label === null);
  return (
    <G>
      <Path
        d={ticks.map(({ y }) => `M${LEFT} ${y}H${LEFT + 14}`).join('')}
        stroke={palette.edge}
        strokeWidth={1}
      />
      <Path
        d={rungs.map(({ y }) => `M${LEFT} ${y}H${RIGHT}`).join('')}
        stroke={palette.ink}
        strokeWidth={1.6}
      />
      {rungs.map((line) => (
        <SvgText
          key={line.psi}
          x={NUMBERS_WIDTH}
          y={line.y + 5}
          fontSize={15}
          fontFamily={NUMERAL_FACE}
          fill={palette.ink}
          textAnchor="end"
        >
          {line.label}
        </SvgText>
      ))}
      <Path d={`M${LEFT} 0V${height}M${RIGHT} 0V${height}`} stroke={palette.ink} strokeWidth={3} />
    </G>
  );
});

interface FlagsProps {
  scale: LadderScale;
  flags: readonly LadderFlag[];
  gauge: Gauge;
  height: number;
}

const Flags = memo(function Flags({ scale, flags, gauge, height }: FlagsProps) {
  const palette = usePalette();
  const seen = flags.filter((flag) => {
    const y = scale.y(flag.psi);
    return y >= 0 && y <= height;
  });
  const places = spreadApart(
    seen.map((flag) => scale.y(flag.psi)),
    FLAG_GAP,
    height - FLAG_GAP / 2,
  );
  return (
    <G>
      {seen.map((flag, index) => {
        const y = scale.y(flag.psi);
        const at = places[index] ?? y;
        const x = RIGHT + 9;
        return (
          <G key={flag.id}>
            <Polyline
              points={`${RIGHT - 8},${y} ${RIGHT + 2},${y} ${x},${at}`}
              fill="none"
              stroke={palette.ink}
              strokeWidth={2}
            />
            <Path
              d={`M${x} ${at} l7 -9 h${FLAG_LENGTH} v18 h-${FLAG_LENGTH} z`}
              fill={flag.past ? palette.ground : palette.ink}
              stroke={palette.ink}
              strokeWidth={1.5}
            />
            <SvgText
              x={x + 10}
              y={at + 5}
              fontSize={14}
              fontWeight="700"
              fontFamily={NUMERAL_FACE}
              fill={flag.past ? palette.ink : palette.ground}
            >
              {sayLevel(flag.psi, gauge.unit)}
            </SvgText>
          </G>
        );
      })}
    </G>
  );
});

function Needle({ y, suggested }: { y: number; suggested: boolean }) {
  const palette = usePalette();
  if (suggested) {
    return (
      <G>
        <Path
          d={`M${LEFT} ${y}H${RIGHT + 4}`}
          stroke={palette.accent}
          strokeWidth={4}
          strokeDasharray="9 6"
        />
        <Circle
          cx={LEFT}
          cy={y}
          r={8}
          fill={palette.ground}
          stroke={palette.accent}
          strokeWidth={3}
        />
      </G>
    );
  }
  return (
    <G>
      <Rect x={LEFT} y={y - 3} width={RAILS_WIDTH + 4} height={6} fill={palette.accent} />
      <Circle cx={LEFT} cy={y} r={8} fill={palette.accent} />
    </G>
  );
}

/** A linked gauge's own needle: thin, right across, so that it is not taken for the reading that will be kept. */
function LiveMark({ y }: { y: number }) {
  const palette = usePalette();
  return <Path d={`M${LEFT - 6} ${y}H${RIGHT + 14}`} stroke={palette.ink} strokeWidth={2.5} />;
}
