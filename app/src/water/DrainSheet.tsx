import type { Drained } from '@keen-bleed/core/water';
import { useState } from 'react';
import { View } from 'react-native';
import { PhotoPicker } from '../photos/PhotoPicker';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { Chips } from '../ui/Chips';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Toggle } from '../ui/Toggle';
import type { Drain } from './useWater';
import { mlIn } from './waterWords';

interface DrainSheetProps {
  drain: Drain;
  /** Tanks of the same unit that the same cord may drain. */
  others: readonly Drain[];
  /** What was said of it in this round. */
  drained: Drained | undefined;
  onDone: (
    more: { ml: number | null; stuck: boolean; withParts: string[]; note: string | null },
    photos: readonly Blob[],
  ) => void;
  onLeave: () => void;
}

/** What more can be said of a drain: millilitres, a stuck valve, a cord that drains several, a note, a photo. */
export function DrainSheet({ drain, others, drained, onDone, onLeave }: DrainSheetProps) {
  const [ml, setMl] = useState('');
  const [stuck, setStuck] = useState(drained?.stuck ?? false);
  const [withParts, setWithParts] = useState<string[]>([...(drained?.with ?? [])]);
  const [note, setNote] = useState('');
  const [photos, setPhotos] = useState<readonly Blob[]>([]);
  const [problem, setProblem] = useState<string>();
  const done = () => {
    const amount = ml.trim() === '' ? null : mlIn(ml);
    if (typeof amount === 'string') return setProblem(amount);
    const words = note.trim().slice(0, 200);
    onDone({ ml: amount, stuck, withParts, note: words === '' ? null : words }, photos);
  };
  return (
    <Sheet title={drain.title} at="foot" onLeave={onLeave}>
      <Caution lines={drain.check.cautions} />
      <Field
        numeric
        label="Measured"
        hint="ml, if it was"
        value={ml}
        onChange={setMl}
        problem={problem}
      />
      <Toggle label="The drain is stuck" value={stuck} onChange={setStuck} />
      {others.length > 0 ? (
        <Chips
          label="The same cord drains"
          options={others.map(({ check, title }) => ({
            value: check.part,
            title: `with ${title.toLowerCase()}`,
          }))}
          chosen={withParts}
          onChange={setWithParts}
        />
      ) : null}
      <Field label="Note" value={note} onChange={setNote} />
      <PhotoPicker photos={photos} onChange={setPhotos} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
