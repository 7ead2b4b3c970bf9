import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { photoHere } from './keepPhotos';
import { Picture } from './Picture';

/** The photos of an entry: from this device where it has them, otherwise from the server. */
export function PhotoStrip({ ids, of }: { ids: readonly string[]; of: string }) {
  if (ids.length === 0) return null;
  return (
    <View
      role="list"
      aria-label={`Photos of ${of}`}
      style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}
    >
      {ids.map((id, n) => (
        <View key={id} role="listitem">
          <OnePhoto id={id} says={`Photo ${n + 1} of ${of}`} />
        </View>
      ))}
    </View>
  );
}

function OnePhoto({ id, says }: { id: string; says: string }) {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    let made: string | null = null;
    let gone = false;
    void photoHere(id).then((blob) => {
      if (gone) return;
      made = blob ? URL.createObjectURL(blob) : null;
      setUrl(made ?? `/api/v1/photos/${id}`);
    });
    return () => {
      gone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [id]);
  return url ? <Picture url={url} says={says} /> : null;
}
