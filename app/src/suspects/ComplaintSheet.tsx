import { complaintsLike, type Complaint } from '@keen-bleed/core/diagnosis';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';

const SHOWN = 6;

interface ComplaintSheetProps {
  onDone: (complaint: Complaint) => void;
  onLeave: () => void;
}

/** What the driver complains of, found by any of the words it goes by. */
export function ComplaintSheet({ onDone, onLeave }: ComplaintSheetProps) {
  const [words, setWords] = useState('');
  const found = complaintsLike(words);
  return (
    <Sheet title="What does the driver say?" at="foot" onLeave={onLeave}>
      <Field label="Find" hint="such as drags, hiss, slow" value={words} onChange={setWords} />
      <View role="list" aria-label="Complaints" style={{ gap: space.hair }}>
        {found.slice(0, SHOWN).map((complaint) => (
          <View key={complaint.id} role="listitem">
            <Button title={complaint.title} size="glove" onPress={() => onDone(complaint)} />
          </View>
        ))}
      </View>
      {found.length === 0 ? (
        <Txt>None of the list goes by that word. Try another, or leave it out.</Txt>
      ) : found.length > SHOWN ? (
        <Txt as="small" tone="quiet">{`${found.length - SHOWN} more: type a word.`}</Txt>
      ) : null}
      <Button title="Back" size="glove" onPress={onLeave} />
    </Sheet>
  );
}
