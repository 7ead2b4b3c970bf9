import { createElement, useEffect, useMemo, useRef, useState, type ChangeEvent } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { Picture } from './Picture';
import { scaledPhoto } from './scaledPhoto';

/** Photos of one entry at most. */
const MOST = 8;

interface PhotoPickerProps {
  photos: readonly Blob[];
  onChange: (photos: readonly Blob[]) => void;
}

/** Takes or chooses photos for an entry, each made small on this device. */
export function PhotoPicker({ photos, onChange }: PhotoPickerProps) {
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const urls = useMemo(() => photos.map((photo) => URL.createObjectURL(photo)), [photos]);
  useEffect(
    () => () => {
      for (const url of urls) URL.revokeObjectURL(url);
    },
    [urls],
  );
  const choose = async (files: readonly File[]) => {
    setBusy(true);
    setProblem(null);
    const made = [...photos];
    for (const file of files.slice(0, MOST - photos.length)) {
      const photo = await scaledPhoto(file);
      if (typeof photo === 'string') setProblem(photo);
      else made.push(photo);
    }
    onChange(made);
    setBusy(false);
  };
  return (
    <View style={{ gap: space.near }}>
      {createElement('input', {
        ref: input,
        type: 'file',
        accept: 'image/*',
        multiple: true,
        'aria-label': 'Photos',
        tabIndex: -1,
        style: { display: 'none' },
        onChange: ({ target }: ChangeEvent<HTMLInputElement>) => {
          const files = [...(target.files ?? [])];
          target.value = '';
          void choose(files);
        },
      })}
      {urls.length > 0 ? (
        <View
          role="list"
          aria-label="Photos added"
          style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}
        >
          {urls.map((url, n) => (
            <View key={url} role="listitem" style={{ gap: space.hair }}>
              <Picture url={url} says={`Photo ${n + 1}`} />
              <Button
                title="Remove"
                manner="quiet"
                label={`Remove photo ${n + 1}`}
                onPress={() => onChange(photos.filter((_, at) => at !== n))}
              />
            </View>
          ))}
        </View>
      ) : null}
      {problem ? (
        <Txt as="bodyBold" tone="fail" live="assertive">
          {problem}
        </Txt>
      ) : null}
      {photos.length < MOST ? (
        <Button
          title="Add a photo"
          busy={busy}
          onPress={() => input.current?.click()}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
    </View>
  );
}
