import type { RunFact } from '@keen-bleed/contract';
import type { NewFact } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';

/** What is told of the vehicle and the place before a run, as it stands in the boxes. */
export interface AboutForm {
  odometer: string;
  unit: 'km' | 'mi';
  place: string;
}

export const noAbout: AboutForm = { odometer: '', unit: 'km', place: '' };

/** Thousands may be set apart; a comma or a point before three digits is no decimal. */
const GROUPED = /[ ,.](?=\d{3}(\D|$))/g;

/** The fact that keeps it; none where nothing was filled in. */
export function aboutFact(
  form: AboutForm,
): { fact: NewFact<RunFact> | null } | { problem: string } {
  const place = form.place.trim();
  const text = form.odometer.trim().replace(GROUPED, '');
  const value = Number(text.replace(',', '.'));
  if (text !== '' && !(value >= 0 && value <= 9_999_999)) {
    return { problem: 'The odometer reading must be a number from 0 to 9,999,999.' };
  }
  if (place.length > 80) return { problem: 'The place may have at most 80 characters.' };
  if (text === '' && place === '') return { fact: null };
  return {
    fact: {
      kind: 'about',
      ...(text === '' ? {} : { odometer: { value, unit: form.unit } }),
      ...(place === '' ? {} : { place }),
    },
  };
}

interface AboutFieldsProps {
  value: AboutForm;
  onChange: (value: AboutForm) => void;
}

/** Odometer and place: asked of nobody, at hand for who wants them in the record. */
export function AboutFields({ value, onChange }: AboutFieldsProps) {
  const [open, setOpen] = useState(false);
  if (!open) {
    return (
      <Button
        title="Add odometer or place"
        manner="quiet"
        style={{ alignSelf: 'flex-start' }}
        onPress={() => setOpen(true)}
      />
    );
  }
  return (
    <View style={{ gap: space.near }}>
      <View style={{ flexDirection: 'row', gap: space.step, alignItems: 'flex-end' }}>
        <View style={{ flex: 1 }}>
          <Field
            label="Odometer"
            value={value.odometer}
            onChange={(odometer) => onChange({ ...value, odometer })}
            numeric
          />
        </View>
        <View style={{ gap: space.hair }}>
          <Txt as="smallBold">In</Txt>
          <Segments
            label="Odometer in"
            options={[
              { value: 'km', title: 'km' },
              { value: 'mi', title: 'miles' },
            ]}
            value={value.unit}
            onChange={(unit) => onChange({ ...value, unit })}
          />
        </View>
      </View>
      <Field
        label="Place"
        value={value.place}
        onChange={(place) => onChange({ ...value, place })}
      />
    </View>
  );
}
