import type { SideFinding } from '@keen-bleed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { PhotoPicker } from '../photos/PhotoPicker';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { ASIDES } from './huntWords';

interface AsideSheetProps {
  units: readonly { id: string; title: string }[];
  onDone: (unitId: string, about: SideFinding, text: string, photos: readonly Blob[]) => void;
  onLeave: () => void;
}

/** What was seen on the way and is no leak: a list of its own, from which jobs are made. */
export function AsideSheet({ units, onDone, onLeave }: AsideSheetProps) {
  const [unitId, setUnitId] = useState(units[0]?.id ?? '');
  const [about, setAbout] = useState<SideFinding | null>(null);
  const [text, setText] = useState('');
  const [photos, setPhotos] = useState<readonly Blob[]>([]);
  const [problem, setProblem] = useState<string>();
  const done = () => {
    const words = text.trim();
    if (about === null) return setProblem('Say what it is about.');
    if (words === '') return setProblem('Write a word or two first.');
    if (words.length > 200) return setProblem('At most 200 characters.');
    onDone(unitId, about, words, photos);
  };
  return (
    <Sheet title="Seen on the way" at="foot" onLeave={onLeave}>
      {units.length > 1 ? (
        <Choice
          label="On"
          options={units.map(({ id, title }) => ({ value: id, title }))}
          value={unitId}
          onChange={setUnitId}
        />
      ) : null}
      <Choice
        label="About"
        note="What nobody here understands goes to “To be looked up”, and is left alone."
        options={ASIDES}
        value={about ?? ('' as never)}
        onChange={setAbout}
      />
      <Field label="What you saw" value={text} onChange={setText} problem={problem} lines={2} />
      <PhotoPicker photos={photos} onChange={setPhotos} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
