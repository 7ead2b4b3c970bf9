import type { PressureUnit } from '@keen-bleed/contract';
import { dryerStates, type DryerHealth, type FrostRisk } from '@keen-bleed/core/water';
import { View } from 'react-native';
import Svg, { Line, Rect } from 'react-native-svg';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { DRYER_TITLES, sayDegrees, sayMl } from './waterWords';

const HEIGHT = 20;
/** Water is told apart by its ratio: rails are drawn by the logarithm, from a drop. */
const LEAST_ML = 0.5;

interface DryerPanelProps {
  health: DryerHealth;
  foundMl: readonly [number, number] | null;
  frost: readonly FrostRisk[];
  lowC: number | undefined;
  unit: PressureUnit;
}

/** What each state of the dryer would have left, what was found laid over it, and what that means for tonight. */
export function DryerPanel({ health, foundMl, frost, lowC, unit }: DryerPanelProps) {
  const palette = usePalette();
  const [box, onBox] = useBoxSize();
  const { leaves, chances, cannotTell } = health;
  const most = Math.max(10, ...leaves.map(({ toMl }) => toMl), foundMl?.[1] ?? 0);
  const x = (ml: number) =>
    2 + (Math.log(Math.max(LEAST_ML, ml) / LEAST_ML) / Math.log(most / LEAST_ML)) * (box.width - 4);
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        The dryer
      </Txt>
      <View role="status" aria-label="How the dryer is">
        <Txt as="bodyBold">{sayHealth(health, foundMl)}</Txt>
      </View>
      <View onLayout={onBox} role="list" aria-label="What each would have left">
        {leaves.map(({ state, ml, fromMl, toMl }) => (
          <View key={state} role="listitem">
            <Txt as="small">
              {`${DRYER_TITLES[state]}: about ${sayMl(ml)}${chances && !cannotTell ? `, ${Math.round(100 * chances[state])} in 100` : ''}`}
            </Txt>
            {box.width > 0 ? (
              <Svg width={box.width} height={HEIGHT} aria-hidden>
                <Line
                  x1={2}
                  x2={box.width - 2}
                  y1={HEIGHT / 2}
                  y2={HEIGHT / 2}
                  stroke={palette.rule}
                />
                {foundMl ? (
                  <Rect
                    x={x(foundMl[0])}
                    width={Math.max(3, x(foundMl[1]) - x(foundMl[0]))}
                    y={0}
                    height={HEIGHT}
                    fill={palette.rule}
                  />
                ) : null}
                <Rect
                  x={x(fromMl)}
                  width={Math.max(3, x(toMl) - x(fromMl))}
                  y={HEIGHT / 2 - 5}
                  height={10}
                  fill="none"
                  stroke={palette.edge}
                  strokeWidth={1.5}
                />
                <Rect x={x(ml) - 1.5} width={3} y={2} height={HEIGHT - 4} fill={palette.accent} />
              </Svg>
            ) : null}
          </View>
        ))}
      </View>
      {foundMl ? (
        <Txt
          as="small"
          tone="quiet"
        >{`The shaded band is what came out: ${sayMl(foundMl[0])} to ${sayMl(foundMl[1])}.`}</Txt>
      ) : null}
      {lowC !== undefined ? (
        <>
          <Txt as="heading" heading={2}>{`Tonight, ${sayDegrees(lowC, unit)}`}</Txt>
          {lowC >= 0 ? (
            <Txt as="small">No frost: nothing freezes.</Txt>
          ) : (
            <View role="list" aria-label="Frost risk by line">
              {frost.map(({ id, title, dewPointC, chance }) => (
                <View key={id} role="listitem">
                  <Rule />
                  <View
                    style={{
                      flexDirection: 'row',
                      justifyContent: 'space-between',
                      gap: space.step,
                      paddingVertical: space.near,
                    }}
                  >
                    <View style={{ flex: 1 }}>
                      <Txt as="bodyBold">{title}</Txt>
                      <Txt
                        as="small"
                        tone="quiet"
                      >{`gives up water at ${sayDegrees(dewPointC, unit)}`}</Txt>
                    </View>
                    <Txt
                      as={chance > 0.3 ? 'bodyBold' : 'body'}
                      tone={chance > 0.3 ? 'fail' : 'ink'}
                    >
                      {chance < 0.05
                        ? 'unlikely to freeze'
                        : `freezes, ${Math.min(99, Math.round(100 * chance))} in 100`}
                    </Txt>
                  </View>
                </View>
              ))}
              <Rule />
            </View>
          )}
        </>
      ) : null}
    </View>
  );
}

function sayHealth(
  { chances, cannotTell }: DryerHealth,
  foundMl: readonly [number, number] | null,
): string {
  if (cannotTell) return 'Can’t tell: in this weather and time no dryer would leave much.';
  if (!foundMl || !chances) return 'Drain the tanks: what comes says how the dryer is.';
  const likeliest = dryerStates.reduce((best, state) =>
    chances[state] > chances[best] ? state : best,
  );
  const sure = Math.min(99, Math.round(100 * chances[likeliest]));
  switch (likeliest) {
    case 'in order':
      return `The dryer is in order, ${sure} in 100.`;
    case 'spent':
      return `The cartridge is due: its desiccant is spent, ${sure} in 100.`;
    case 'none':
      return `The air is not dried at all, ${sure} in 100: no purge, or no dryer.`;
  }
}
