import type { Check, CheckAnswer } from '@keen-bleed/core/checks';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { space, target } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { Txt } from '../ui/Txt';
import type { NextShown } from './suspecting';

interface NextCheckProps {
  next: NextShown;
  check: Check | null;
  /** Answers at once, where an answer is one of a few words; null for whoever may not write. */
  onAnswer: ((check: Check, answer: CheckAnswer) => void) | null;
  /** Opens the check, to read how and to give a number, a note or a photo. */
  onOpen: ((checkId: string) => void) | null;
  /** What opening it is called, where it is not to write down an answer. */
  openTitle?: string;
}

/** Answers that stand side by side. */
const MOST_BESIDE = 5;

/** What opens the whole sheet: beside the answers it adds to them; else it is where they are given. */
const openingOf = (options: number): string =>
  options === 0
    ? 'Give what you read'
    : options <= MOST_BESIDE
      ? 'With a note or photo'
      : 'Say what you found';

/** The check that buys most, how it is done, what each answer would mean; or why there is none to make. */
export function NextCheck({ next, check, onAnswer, onOpen, openTitle }: NextCheckProps) {
  const palette = usePalette();
  const wide = useWide();
  const head = HEADS[next.next];
  const shape = check?.answer;
  // On a phone the ranking needs the room: how it is done opens on a tap. A caution is always there.
  const [open, setOpen] = useState<string | null>(null);
  const isOpen = wide || open === check?.id;
  const options =
    shape?.kind === 'grade' ? shape.grades : shape?.kind === 'choice' ? shape.choices : null;
  const isBeside = options !== null && options.length <= MOST_BESIDE;
  return (
    <View
      role="region"
      aria-label="What to do next"
      style={{
        borderTopWidth: wide ? 0 : 3,
        borderLeftWidth: wide ? 3 : 0,
        borderColor: palette.accent,
        backgroundColor: palette.ground,
        padding: space.gap,
        gap: space.near,
      }}
    >
      <Txt as="smallBold" tone="accent">
        {next.next === 'check' && check
          ? `Next: parts these most for ${sayMinutes(next.minutes)}’ work`
          : head}
      </Txt>
      {next.next === 'check' && check ? (
        <>
          <Txt as="stepTitle" heading={2}>
            {check.title}
          </Txt>
          <Txt as="smallBold">{check.state.title}</Txt>
          {isOpen ? <Txt>{check.how}</Txt> : null}
          {check.cautions.length > 0 ? <Caution lines={check.cautions} /> : null}
          {next.means.slice(0, isOpen ? undefined : 2).map(({ answer, then }) => (
            <Txt key={answer} as="small">{`${answer}: ${then}`}</Txt>
          ))}
          {onAnswer && isBeside ? (
            <View
              role="group"
              aria-label="What did you find?"
              style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}
            >
              {options.map(({ id, title }) => (
                <Button
                  key={id}
                  title={title}
                  size={wide ? 'glove' : 'finger'}
                  manner="main"
                  style={{ flexGrow: 1, minWidth: 96 }}
                  onPress={() =>
                    onAnswer(
                      check,
                      shape?.kind === 'grade'
                        ? { kind: 'grade', grade: id }
                        : { kind: 'choice', choice: id },
                    )
                  }
                />
              ))}
            </View>
          ) : null}
          {onOpen ? (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
              <Button
                title={openTitle ?? openingOf(options?.length ?? 0)}
                manner={isBeside && !openTitle ? 'quiet' : 'main'}
                onPress={() => onOpen(check.id)}
              />
              {wide ? null : (
                <Button
                  title={isOpen ? 'Less' : 'How, and others'}
                  manner="quiet"
                  onPress={() => setOpen(isOpen ? null : check.id)}
                />
              )}
            </View>
          ) : null}
          {isOpen && next.others.length > 0 && onOpen ? (
            <View style={{ gap: 2 }}>
              <Txt as="small" tone="quiet">
                Or, if that is out of reach:
              </Txt>
              {next.others.slice(0, 3).map(({ checkId, title, stateTitle, minutes }) => (
                <Pressable
                  key={checkId}
                  role="button"
                  onPress={() => onOpen(checkId)}
                  style={{ minHeight: target.finger, justifyContent: 'center' }}
                >
                  <Txt as="bodyBold">{title}</Txt>
                  <Txt as="small" tone="quiet">{`${stateTitle} · ${sayMinutes(minutes)}`}</Txt>
                </Pressable>
              ))}
            </View>
          ) : null}
        </>
      ) : next.next === 'check' ? null : (
        <Txt as="bodyBold">{next.text}</Txt>
      )}
    </View>
  );
}

const HEADS: Readonly<Record<NextShown['next'], string>> = {
  check: 'Next',
  wait: 'In a moment',
  found: 'It stands out',
  sound: 'Nothing wrong',
  again: 'Read again',
  open: 'No check tells more',
};

const sayMinutes = (minutes: number): string =>
  minutes < 1.5 ? 'a minute' : `${Math.round(minutes)} minutes`;
