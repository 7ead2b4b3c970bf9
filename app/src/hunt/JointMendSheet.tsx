import type { JointMend } from '@keen-bleed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { PhotoPicker } from '../photos/PhotoPicker';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { MENDS } from './huntWords';

interface JointMendSheetProps {
  title: string;
  /** What else has no air once it is capped or taken off; null while that is worked out. */
  loses: readonly string[] | null;
  /** Where it is seen on the drawing. */
  drawing: string;
  onDone: (how: JointMend, adapters: string | null, photos: readonly Blob[]) => void;
  onLeave: () => void;
}

/** How a joint was mended, and what hangs on it where it is closed for good. */
export function JointMendSheet({ title, loses, drawing, onDone, onLeave }: JointMendSheetProps) {
  const [how, setHow] = useState<JointMend | null>(null);
  const [adapters, setAdapters] = useState('');
  const [photos, setPhotos] = useState<readonly Blob[]>([]);
  const [problem, setProblem] = useState<string>();
  const closes = how === 'capped' || how === 'removed';
  const done = () => {
    if (how === null) return setProblem('Say how it was mended.');
    const words = adapters.trim();
    if (words.length > 120) return setProblem('At most 120 characters.');
    onDone(how, words === '' ? null : words, photos);
  };
  return (
    <Sheet title={`Mended: ${title}`} at="foot" onLeave={onLeave}>
      <Caution
        lines={[
          'Empty the tank before a joint is opened, and hold the fitting with a second spanner.',
        ]}
      />
      <Choice
        label="How"
        options={MENDS}
        value={how ?? ('' as never)}
        onChange={(next) => {
          setHow(next);
          setProblem(undefined);
        }}
      />
      {closes ? (
        <View style={{ gap: space.hair }}>
          {loses === null ? (
            <Txt as="small" tone="quiet">
              Looking what hangs on it…
            </Txt>
          ) : loses.length === 0 ? (
            <Txt as="small">Nothing else loses its air by that.</Txt>
          ) : (
            <Notice
              manner="trouble"
              title={`${loses.length === 1 ? 'One other place loses' : `${loses.length} other places lose`} its air by that`.replace(
                'lose its',
                'lose their',
              )}
              text={`${loses.slice(0, 8).join(', ')}${loses.length > 8 ? `, ${loses.length - 8} more` : ''}.`}
            />
          )}
          <LinkTo to={drawing}>
            <Txt as="bodyBold" tone="accent">
              See it drawn
            </Txt>
          </LinkTo>
        </View>
      ) : null}
      <Field
        label="Adapters used"
        hint="if any"
        value={adapters}
        onChange={setAdapters}
        problem={problem}
      />
      <PhotoPicker photos={photos} onChange={setPhotos} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
