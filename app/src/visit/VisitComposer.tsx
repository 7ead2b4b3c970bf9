import type { SeenStanding, SeenFact, Unit, VisitFact, VisitNoteFact } from '@keen-bleed/contract';
import { partsOf, readable, type NewFact } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { PhotoPicker } from '../photos/PhotoPicker';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Txt } from '../ui/Txt';
import { partWords } from './VisitEntries';

const MOST = { note: 500, seen: 200 } as const;

type Entry = VisitNoteFact | SeenFact;

interface VisitComposerProps {
  units: readonly Unit[];
  /** An entry that is put right instead of a new one being made. */
  correcting: Entry | null;
  onDone: (fact: NewFact<VisitFact>, photos: readonly Blob[]) => Promise<boolean>;
  onLeave: () => void;
}

/** Where, how it is, and a few words: a note for the whole, or what was seen at a part. */
export function VisitComposer({ units, correcting, onDone, onLeave }: VisitComposerProps) {
  const places = units.flatMap((unit) =>
    partsOf(unit).map(({ id }) => ({ unitId: unit.id, partId: id })),
  );
  const whole = units.length > 1 ? 'The whole rig' : 'The whole unit';
  const titles = [whole, ...places.map((at) => partWords(at, units) ?? whole)];
  const [where, setWhere] = useState(partWords(correcting?.at ?? null, units) ?? whole);
  // Nothing is chosen beforehand: how a part is has to be said by whoever saw it.
  const [standing, setStanding] = useState<SeenStanding | null>(
    correcting?.kind === 'seen' ? correcting.standing : null,
  );
  const [text, setText] = useState(correcting?.text ?? '');
  const [problem, setProblem] = useState<string>();
  const [photos, setPhotos] = useState<readonly Blob[]>([]);
  const at = places[titles.indexOf(where) - 1] ?? null;
  const isSeen = correcting ? correcting.kind === 'seen' : at !== null;

  const done = async () => {
    const words = readable(text).trim();
    const most = isSeen ? MOST.seen : MOST.note;
    if (words === '') return setProblem('Write a word or two first.');
    if (words.length > most) return setProblem(`At most ${most} characters.`);
    if (isSeen && standing === null)
      return setProblem('Say how it is: good, worth noting, or not right.');
    setProblem(undefined);
    // What is put right keeps the photos it had.
    const had = correcting?.photos ? { photos: correcting.photos } : {};
    const supersedes = correcting
      ? { supersedes: correcting.id, atMs: correcting.atMs, ...had }
      : {};
    const fact: NewFact<VisitFact> =
      isSeen && at && standing
        ? { kind: 'seen', at, standing, text: words, ...supersedes }
        : { kind: 'note', at, text: words, ...supersedes };
    if (!(await onDone(fact, photos))) return;
    setPhotos([]);
    setText('');
    setStanding(null);
  };

  return (
    <View style={{ gap: space.step }}>
      <Txt as="heading" heading={2}>
        {correcting ? 'Put it right' : 'What did you see?'}
      </Txt>
      <View style={{ flexDirection: 'row' }}>
        <Pick label="Where" options={titles} value={where} onChange={setWhere} />
      </View>
      {isSeen ? (
        <Choice
          label="How it is"
          options={[
            { value: 'good', title: 'Good' },
            { value: 'noted', title: 'Worth noting' },
            { value: 'bad', title: 'Not right' },
          ]}
          value={standing ?? ('' as SeenStanding)}
          onChange={setStanding}
          size="glove"
        />
      ) : null}
      <Field label="In a few words" value={text} onChange={setText} problem={problem} lines={3} />
      <PhotoPicker photos={photos} onChange={setPhotos} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        {correcting ? (
          <Button title="Leave as it was" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        ) : null}
        <Button
          title={correcting ? 'Keep' : isSeen ? 'Add what I saw' : 'Add the note'}
          manner="main"
          size="glove"
          style={{ flex: 1 }}
          onPress={() => void done()}
        />
      </View>
    </View>
  );
}
