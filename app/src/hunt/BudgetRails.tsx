import type { School } from '@keen-bleed/contract';
import type { BudgetLine } from '@keen-bleed/core/hunt';
import { View } from 'react-native';
import Svg, { Line, Rect } from 'react-native-svg';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { NEEDLE_NUMBERS, NEEDLE_TITLES, sayFalls, sayFlow, STATE_TITLES } from './huntWords';

const HEIGHT = 24;
const BAR = 12;

interface BudgetRailsProps {
  lines: readonly BudgetLine[];
  school: School;
}

/** One rail a needle: what it lost as a post, and what was found and what every rig seeps laid up to it. */
export function BudgetRails({ lines, school }: BudgetRailsProps) {
  const { unit } = usePrefs();
  const palette = usePalette();
  const [box, onBox] = useBoxSize();
  // One scale for all: air is air whichever needle shows it.
  const most = Math.max(
    0.3,
    ...lines.map(({ lostScfm, lostDeviation, foundScfm, usualScfm }) =>
      Math.max(lostScfm + lostDeviation, foundScfm + usualScfm),
    ),
  );
  const x = (scfm: number) => (Math.max(0, scfm) / most) * (box.width - 4) + 2;
  const needles = school === 'numbers' ? NEEDLE_NUMBERS : NEEDLE_TITLES;
  return (
    <View onLayout={onBox} style={{ gap: space.near }}>
      <View role="list" aria-label="Air lost and found">
        {lines.map((line) => {
          const { state, needle, lostScfm, lostDeviation, foundScfm, usualScfm } = line;
          const from = usualScfm;
          return (
            <View
              key={`${state} ${needle}`}
              role="listitem"
              style={{ paddingVertical: space.hair }}
            >
              <View
                style={{
                  flexDirection: 'row',
                  flexWrap: 'wrap',
                  justifyContent: 'space-between',
                  columnGap: space.near,
                }}
              >
                <Txt as="small">{`${STATE_TITLES[state]} · ${needles[needle]}`}</Txt>
                <Txt as="small">
                  {`lost ${sayFlow(Math.max(0, lostScfm), unit)}, found ${sayFlow(foundScfm, unit)}`}
                </Txt>
              </View>
              {box.width > 0 ? (
                <Svg width={box.width} height={HEIGHT} aria-hidden>
                  <Line
                    x1={2}
                    x2={box.width - 2}
                    y1={HEIGHT / 2}
                    y2={HEIGHT / 2}
                    stroke={palette.rule}
                  />
                  <Rect
                    x={x(lostScfm - 2 * lostDeviation)}
                    width={Math.max(
                      2,
                      x(lostScfm + 2 * lostDeviation) - x(lostScfm - 2 * lostDeviation),
                    )}
                    y={2}
                    height={HEIGHT - 4}
                    fill={palette.rule}
                  />
                  <Rect
                    x={2}
                    width={Math.max(0, x(from) - 2)}
                    y={(HEIGHT - BAR) / 2}
                    height={BAR}
                    fill="none"
                    stroke={palette.edge}
                    strokeWidth={1.5}
                  />
                  <Rect
                    x={x(from)}
                    width={Math.max(0, x(from + foundScfm) - x(from))}
                    y={(HEIGHT - BAR) / 2}
                    height={BAR}
                    fill={palette.accent}
                  />
                  <Rect
                    x={x(lostScfm) - 1.5}
                    width={3}
                    y={1}
                    height={HEIGHT - 2}
                    fill={palette.ink}
                  />
                </Svg>
              ) : null}
            </View>
          );
        })}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: space.step }}>
        <Key shape="lost" title="lost, by the hold" />
        <Key shape="usual" title="usual seepage" />
        <Key shape="found" title="leaks found" />
      </View>
      <Txt as="small" tone="quiet">
        {`With nothing left to find the needles should fall ${sayFalls(Math.min(...lines.map(({ nextFrom }) => nextFrom)), Math.max(...lines.map(({ nextTo }) => nextTo)), unit)}.`}
      </Txt>
    </View>
  );
}

function Key({ shape, title }: { shape: 'lost' | 'usual' | 'found'; title: string }) {
  const palette = usePalette();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.hair }}>
      <Svg width={16} height={14} aria-hidden>
        {shape === 'lost' ? (
          <Rect x={6} y={0} width={3} height={14} fill={palette.ink} />
        ) : (
          <Rect
            x={1}
            y={3}
            width={14}
            height={8}
            fill={shape === 'found' ? palette.accent : 'none'}
            stroke={shape === 'found' ? palette.accent : palette.edge}
            strokeWidth={1.5}
          />
        )}
      </Svg>
      <Txt as="small" tone="quiet">
        {title}
      </Txt>
    </View>
  );
}
