import type { Unit } from '@keen-bleed/contract';
import { readable, unitTitle } from '@keen-bleed/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { jobByHand } from '../store/newJob';
import { startJob } from '../store/startJob';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Sheet } from '../ui/Sheet';

interface NewJobSheetProps {
  units: readonly Unit[];
  onLeave: () => void;
}

/** Opens a job by hand: on which unit, and what was found. */
export function NewJobSheet({ units, onLeave }: NewJobSheetProps) {
  const me = useMe();
  const [first] = units;
  const titles = units.map(unitTitle);
  const [where, setWhere] = useState(first ? unitTitle(first) : '');
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string>();
  const done = async () => {
    const words = readable(text).trim();
    const unit = units[titles.indexOf(where)];
    if (!unit) return setProblem('Add a unit to the yard first.');
    if (words === '') return setProblem('Say what was found.');
    if (words.length > 300) return setProblem('At most 300 characters.');
    try {
      router.push(`/job/${await startJob(me, jobByHand(words, [unit], null))}`);
    } catch {
      setProblem('This device cannot keep a job. Free some space on it, then try again.');
    }
  };
  return (
    <Sheet title="New job" at="foot" onLeave={onLeave}>
      <View style={{ flexDirection: 'row' }}>
        <Pick label="Unit" options={titles} value={where} onChange={setWhere} />
      </View>
      <Field label="What was found" value={text} onChange={setText} problem={problem} lines={2} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button
          title="Open it"
          manner="main"
          size="glove"
          style={{ flex: 1 }}
          onPress={() => void done()}
        />
      </View>
    </Sheet>
  );
}
