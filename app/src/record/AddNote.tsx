import type { RunFact } from '@keen-bleed/contract';
import type { NewFact } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';

interface AddNoteProps {
  onAdd: (fact: NewFact<RunFact>) => Promise<string | null>;
}

/** A note added to a run that is closed or made elsewhere: what is recorded stays as it is. */
export function AddNote({ onAdd }: AddNoteProps) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string>();
  if (!open) {
    return (
      <Button
        title="Add a note"
        style={{ alignSelf: 'flex-start' }}
        onPress={() => setOpen(true)}
      />
    );
  }
  const keep = async () => {
    const words = text.trim();
    if (words === '') return setProblem('Write a word or two first.');
    if (words.length > 500) return setProblem('At most 500 characters.');
    const wrong = await onAdd({ kind: 'note', text: words }).catch(
      () => 'This device could not keep that. Free some space on it, then try again.',
    );
    setProblem(wrong ?? undefined);
    if (wrong !== null) return undefined;
    setText('');
    return setOpen(false);
  };
  return (
    <View style={{ gap: space.near, maxWidth: 520 }}>
      <Field
        label="Note on this run"
        hint="What is recorded stays as it is; the note stands beside it."
        value={text}
        onChange={setText}
        problem={problem}
        lines={2}
      />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" onPress={() => setOpen(false)} />
        <Button title="Keep note" manner="main" onPress={() => void keep()} />
      </View>
    </View>
  );
}
