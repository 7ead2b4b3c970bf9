import { pressuresIn, sayFigure, sayReading, shortOf, type Owed } from '@keen-bleed/core';
import { View } from 'react-native';
import type { Expected } from '../air/drawing';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';

/** Figures that a step is foretold by. */
const FORETOLD = {
  'static-hold': ['static-leak', 'psi/min'],
  'applied-hold': ['applied-leak', 'psi/min'],
  'cut-out': ['cut-out', 'psi'],
  warning: ['warning', 'psi'],
  'pop-out': ['pop-out-park', 'psi'],
} as const;

interface OwedListProps {
  owed: readonly Owed[];
  expected: Expected | null;
  /** Does a check that is owed; null for whoever may not. */
  onCheck: ((owed: Owed) => void) | null;
  /** Takes what cannot be told as passed, with a reason; null for whoever may not. */
  onAccept: ((owed: Owed) => void) | null;
}

/** The retests owed: what each came to, or what it should read. */
export function OwedList({ owed, expected, onCheck, onAccept }: OwedListProps) {
  const { unit: sayIn } = usePrefs();
  const foretold = ({ stepId }: Owed): string | null => {
    const [figure, unit] = FORETOLD[stepId as keyof typeof FORETOLD] ?? [];
    const value = figure ? expected?.figures[figure] : undefined;
    if (value === undefined || !unit) return null;
    const said = sayFigure(value, unit, sayIn);
    return `should read ${said} ${unit.replace('psi', sayIn)}`;
  };
  return (
    <View role="list" aria-label="Retests owed">
      {owed.map((each) => {
        const { done, passed } = each;
        const told = foretold(each);
        return (
          <View key={each.id} role="listitem">
            <Rule />
            <View
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: space.step,
                paddingVertical: space.near,
              }}
            >
              <VerdictShape
                verdict={
                  passed
                    ? 'pass'
                    : done?.verdict === 'fail'
                      ? 'fail'
                      : done
                        ? 'cant-tell'
                        : 'incomplete'
                }
              />
              <View style={{ flex: 1 }}>
                <Txt as="bodyBold">{each.title}</Txt>
                <Txt as="small" tone="quiet">
                  {done
                    ? `${each.stepId === null ? pressuresIn(done.said, sayIn) : done.said}${done.accepted === undefined ? '' : `. Taken as passed: ${done.accepted}`}`
                    : [`${each.minutes} min`, told].filter(Boolean).join(' · ')}
                </Txt>
                {passed && shortOf(done?.readings ?? []).length > 0 ? (
                  <Txt as="small">
                    {`It passes, and a sound rig like this one reads less: ${shortOf(
                      done?.readings ?? [],
                    )
                      .map(
                        ({ title, after, expected, unit }) =>
                          `${title.toLowerCase()} ${sayReading(after ?? 0, unit, sayIn)} for ${sayReading(expected ?? 0, unit, sayIn)}`,
                      )
                      .join(', ')}. Something may still be there.`}
                  </Txt>
                ) : null}
                {done ? (
                  <LinkTo to={each.stepId === null ? `/visit/${done.logId}` : `/run/${done.logId}`}>
                    <Txt as="small" tone="accent">
                      {each.stepId === null ? 'Its visit' : 'Its run'}
                    </Txt>
                  </LinkTo>
                ) : null}
              </View>
              {each.check && onCheck && !passed ? (
                <Button
                  title={done ? 'Measure again' : 'Measure'}
                  label={`${done ? 'Measure again' : 'Measure'}: ${each.title}`}
                  onPress={() => onCheck(each)}
                />
              ) : null}
              {each.mayTake && !passed && onAccept ? (
                <Button
                  title="Take as passed"
                  manner="quiet"
                  label={`Take as passed: ${each.title}`}
                  onPress={() => onAccept(each)}
                />
              ) : null}
            </View>
          </View>
        );
      })}
      <Rule />
    </View>
  );
}
