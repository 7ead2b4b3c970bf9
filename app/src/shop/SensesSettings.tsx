import type { Senses } from '@keen-bleed/contract';
import { USUAL_SENSES } from '@keen-bleed/core/checks';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Txt } from '../ui/Txt';

const FIELDS: readonly { key: keyof Senses; label: string; unit: 'scfm' | '%' }[] = [
  { key: 'heardQuietScfm', label: 'A leak is heard in a quiet yard from', unit: 'scfm' },
  { key: 'heardRunningScfm', label: 'With an engine running, from', unit: 'scfm' },
  { key: 'missed', label: 'Leaks that an ear misses', unit: '%' },
  { key: 'imagined', label: 'Leaks heard where there are none', unit: '%' },
  { key: 'soapMisses', label: 'Leaks that soap misses', unit: '%' },
  { key: 'soapOff', label: 'Soap read a grade off', unit: '%' },
  { key: 'lookWrong', label: 'Looks that are wrong', unit: '%' },
];

const shownOf = (senses: Senses): Record<string, string> =>
  Object.fromEntries(
    FIELDS.map(({ key, unit }) => [
      key,
      String(unit === '%' ? Math.round(senses[key] * 1000) / 10 : senses[key]),
    ]),
  );

interface SensesSettingsProps {
  senses: Senses | null;
  problems: Readonly<Record<string, string>>;
  onKeep: (senses: Senses | null) => void;
}

/** How often ears, soap and eyes of this shop err: what suspects are weighed with, and what the Bay's senses do. */
export function SensesSettings({ senses, problems, onKeep }: SensesSettingsProps) {
  const [shown, setShown] = useState(() => shownOf(senses ?? USUAL_SENSES));
  const keep = () => {
    const said = Object.fromEntries(
      FIELDS.map(({ key, unit }) => {
        const value = Number((shown[key] ?? '').replace(',', '.'));
        return [key, unit === '%' ? value / 100 : value];
      }),
    ) as unknown as Senses;
    onKeep(said);
  };
  return (
    <View style={{ gap: space.near, marginTop: space.gap }}>
      <Txt as="heading" heading={2}>
        Ears, soap and eyes
      </Txt>
      <Txt tone="quiet">
        {senses
          ? 'As this shop has set them.'
          : 'As the house has them: change what you know better here.'}
      </Txt>
      {FIELDS.map(({ key, label, unit }) => (
        <Field
          key={key}
          label={label}
          hint={unit}
          numeric
          value={shown[key] ?? ''}
          onChange={(text) => setShown((before) => ({ ...before, [key]: text }))}
          problem={problems[`senses.${key}`]}
        />
      ))}
      <View style={{ flexDirection: 'row', gap: space.near }}>
        <Button title="Keep" label="Keep ears, soap and eyes" onPress={keep} />
        {senses ? (
          <Button
            title="Back to the house’s"
            manner="quiet"
            onPress={() => {
              setShown(shownOf(USUAL_SENSES));
              onKeep(null);
            }}
          />
        ) : null}
      </View>
    </View>
  );
}
