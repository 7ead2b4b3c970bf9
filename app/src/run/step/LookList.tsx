import type { School } from '@keen-bleed/contract';
import { NOT_DONE, sayParts, type LookItem } from '@keen-bleed/core';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { space, target } from '../../theme/space';
import { usePalette } from '../../theme/usePalette';
import { Button } from '../../ui/Button';
import { Rule } from '../../ui/Rule';
import { Segments } from '../../ui/Segments';
import { Txt } from '../../ui/Txt';
import { VerdictShape } from '../../ui/VerdictSign';

interface LookListProps {
  items: readonly LookItem[];
  school: School;
  answers: Readonly<Record<string, string>>;
  onAnswer: (key: string, value: string) => void;
}

/** What a step asks to be looked at, one answer for each: a tap where it is as it should be, two where it is not. */
export function LookList({ items, school, answers, onAnswer }: LookListProps) {
  const [open, setOpen] = useState<string | null>(null);
  return (
    <View role="list" aria-label="To look at">
      {items.map((item) => (
        <View key={item.key} role="listitem">
          <Rule />
          <LookLine
            item={item}
            school={school}
            value={answers[item.key] ?? null}
            isOpen={open === item.key}
            onToggle={() => setOpen(open === item.key ? null : item.key)}
            onAnswer={(value) => {
              onAnswer(item.key, value);
              setOpen(isBad(item, value) ? item.key : null);
            }}
          />
        </View>
      ))}
      <Rule />
    </View>
  );
}

/** An answer that has more to say: what it points at, or what would decide it. */
const isBad = ({ options }: LookItem, value: string) =>
  options.some(
    (option) => option.value === value && (option.standing === 'bad' || option.standing === 'open'),
  );

interface LookLineProps {
  item: LookItem;
  school: School;
  /** Null until it is answered. */
  value: string | null;
  isOpen: boolean;
  onToggle: () => void;
  onAnswer: (value: string) => void;
}

function LookLine({ item, school, value, isOpen, onToggle, onAnswer }: LookLineProps) {
  const ask = sayParts(item.ask, school);
  const options = [
    ...item.options.map((option) => ({ value: option.value, title: option.title })),
    { value: NOT_DONE, title: 'not done' },
  ];
  const chosen = item.options.find((option) => option.value === value);
  const [usual] = item.options;
  return (
    <View>
      {value === null ? (
        <View style={{ paddingVertical: space.near, gap: space.near }}>
          <Txt>{ask}</Txt>
          {isOpen ? null : (
            <View style={{ flexDirection: 'row', gap: space.near }}>
              <Button
                title={usual?.title ?? ''}
                label={`${ask}: ${usual?.title ?? ''}`}
                size="glove"
                onPress={() => onAnswer(usual?.value ?? '')}
                style={{ flexGrow: 1 }}
              />
              <Button
                title="other"
                label={`${ask}: other`}
                size="glove"
                manner="quiet"
                onPress={onToggle}
              />
            </View>
          )}
        </View>
      ) : (
        <Answered
          ask={ask}
          title={chosen?.title ?? 'not done'}
          isBad={chosen?.standing === 'bad'}
          isOpenQuestion={chosen?.standing === 'open'}
          isOpen={isOpen}
          onToggle={onToggle}
        />
      )}
      {isOpen ? (
        <View style={{ paddingBottom: space.step, gap: space.near }}>
          <Segments
            label={ask}
            size="glove"
            options={options}
            value={value ?? ''}
            onChange={onAnswer}
          />
          {chosen?.means ? <Txt tone="quiet">{sayParts(chosen.means, school)}</Txt> : null}
        </View>
      ) : null}
    </View>
  );
}

interface AnsweredProps {
  ask: string;
  title: string;
  isBad: boolean;
  /** It decides nothing. */
  isOpenQuestion: boolean;
  isOpen: boolean;
  onToggle: () => void;
}

/** An answer that was given; a tap on it opens the others. */
function Answered({ ask, title, isBad: bad, isOpenQuestion, isOpen, onToggle }: AnsweredProps) {
  const palette = usePalette();
  return (
    <Pressable
      role="button"
      aria-expanded={isOpen}
      aria-label={`${ask}: ${title}, change`}
      onPress={onToggle}
      style={({ pressed }) => ({
        minHeight: target.glove,
        flexDirection: 'row',
        alignItems: 'center',
        gap: space.step,
        paddingVertical: space.hair,
        backgroundColor: pressed ? palette.raised : 'transparent',
      })}
    >
      <Txt style={{ flex: 1 }}>{ask}</Txt>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6, flexShrink: 0 }}>
        {bad ? <VerdictShape verdict="fail" /> : null}
        {isOpenQuestion ? <VerdictShape verdict="cant-tell" /> : null}
        <Txt as="bodyBold" tone={bad ? 'fail' : 'ink'}>
          {title}
        </Txt>
      </View>
    </Pressable>
  );
}
