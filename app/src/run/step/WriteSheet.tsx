import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../../theme/space';
import { Button } from '../../ui/Button';
import { Field } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';

interface WriteSheetProps {
  title: string;
  label: string;
  /** Ready-made answers: one press and nothing to type. */
  ready?: readonly string[];
  doTitle: string;
  most: number;
  onDone: (text: string) => void;
  onLeave: () => void;
}

/** A few words asked for: a note, or the reason something is left out. */
export function WriteSheet({
  title,
  label,
  ready = [],
  doTitle,
  most,
  onDone,
  onLeave,
}: WriteSheetProps) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string>();
  const done = () => {
    const words = text.trim();
    if (words === '') setProblem('Write a word or two first.');
    else if (words.length > most) setProblem(`At most ${most} characters.`);
    else onDone(words);
  };
  return (
    <Sheet title={title} at="foot" onLeave={onLeave}>
      {ready.length > 0 ? (
        <View
          style={{
            flexDirection: 'row',
            flexWrap: 'wrap',
            gap: space.near,
          }}
        >
          {ready.map((words) => (
            <Button key={words} title={words} size="glove" onPress={() => onDone(words)} />
          ))}
        </View>
      ) : null}
      <Field label={label} value={text} onChange={setText} problem={problem} lines={2} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title={doTitle} manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
