import type { PressureUnit } from '@keen-bleed/contract';
import { sayPressure } from '@keen-bleed/core';
import { View } from 'react-native';
import { placeNotes } from '../air/placeNotes';
import { space } from '../theme/space';
import { Txt } from '../ui/Txt';
import type { Bay } from './useBay';

/** What a place is for, what it does now, and by which steps of a run it is tested. */
export function PlaceNote({ place, bay, unit }: { place: string; bay: Bay; unit: PressureUnit }) {
  const { rig, frame } = bay;
  const i = rig.places.findIndex(({ id }) => id === place);
  const found = rig.places[i];
  const psi = frame.psi[i] ?? 0;
  const moving = rig.ways
    .map((way, e) => ({ way, scfm: frame.scfm[e] ?? 0 }))
    .filter(({ way, scfm }) => (way.from === i || way.to === i) && Math.abs(scfm) >= 0.02);
  if (!found) return null;
  const { does, tests } = placeNotes[found.kind];
  return (
    <View role="status" style={{ gap: space.hair }}>
      <Txt as="bodyBold">{`${found.name}, ${sayPressure(psi, unit)}`}</Txt>
      <Txt>{does}</Txt>
      <Txt tone="quiet">
        {moving.length === 0
          ? 'No air moves.'
          : moving
              .map(({ way, scfm }) => `${way.name} ${Math.abs(scfm).toFixed(2)} scfm`)
              .join(', ')}
      </Txt>
      <Txt as="small" tone="quiet">{`Tested by: ${tests}`}</Txt>
    </View>
  );
}
