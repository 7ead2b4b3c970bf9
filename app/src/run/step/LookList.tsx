import type { School } from '@keen-bleed/contract';
import { sayParts, type LookItem } from '@keen-bleed/core';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { space, target } from '../../theme/space';
import { usePalette } from '../../theme/usePalette';
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

/** What a step asks to be looked at: each stands as it usually is until its line is tapped and another chosen. */
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
            value={answers[item.key] ?? ''}
            isOpen={open === item.key}
            onToggle={() => setOpen(open === item.key ? null : item.key)}
            onAnswer={(value) => onAnswer(item.key, value)}
          />
        </View>
      ))}
      <Rule />
    </View>
  );
}

interface LookLineProps {
  item: LookItem;
  school: School;
  value: string;
  isOpen: boolean;
  onToggle: () => void;
  onAnswer: (value: string) => void;
}

function LookLine({ item, school, value, isOpen, onToggle, onAnswer }: LookLineProps) {
  const palette = usePalette();
  const chosen = item.options.find((option) => option.value === value) ?? item.options[0];
  const ask = sayParts(item.ask, school);
  const bad = chosen?.standing === 'bad';
  return (
    <View>
      <Pressable
        role="button"
        aria-expanded={isOpen}
        aria-label={`${ask}: ${chosen?.title ?? ''}`}
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
          <Txt as="bodyBold" tone={bad ? 'fail' : 'ink'}>
            {chosen?.title ?? ''}
          </Txt>
        </View>
      </Pressable>
      {isOpen ? (
        <View style={{ paddingBottom: space.step, gap: space.near }}>
          <Segments
            label={ask}
            size="glove"
            options={item.options.map((option) => ({ value: option.value, title: option.title }))}
            value={chosen?.value ?? ''}
            onChange={onAnswer}
          />
          {bad && chosen.means ? <Txt tone="quiet">{sayParts(chosen.means, school)}</Txt> : null}
        </View>
      ) : null}
    </View>
  );
}
