import type { EditShop } from '@keen-bleed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { shopChanged, useMe } from '../account/session';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { ask, asProblem } from '../wire/api';
import { SensesSettings } from './SensesSettings';

const IDLE_MINUTES = {
  'an hour': 60,
  'a shift of 12 hours': 720,
  'three days': 4_320,
  'a week': 10_080,
  'two weeks': 20_160,
} as const;
type IdleChoice = keyof typeof IDLE_MINUTES;
const idleChoices = Object.keys(IDLE_MINUTES) as IdleChoice[];

/** The choice a shop's time comes under: the first that is as long. */
const idleChoiceOf = (minutes: number): IdleChoice =>
  idleChoices.find((choice) => IDLE_MINUTES[choice] >= minutes) ?? 'two weeks';

/** What a lead says of the shop: its name, the zone of its times, and whether it only shows the product. */
export function ShopSettings() {
  const me = useMe();
  const [name, setName] = useState(me.shopName);
  const [timeZone, setTimeZone] = useState(me.timeZone);
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [said, setSaid] = useState<string | null>(null);
  if (me.role !== 'lead') return null;
  const change = async (edit: EditShop) => {
    setSaid(null);
    try {
      await shopChanged(await ask('PATCH', '/api/v1/shop', edit));
      setProblems({});
      setSaid('Kept.');
    } catch (error) {
      const problem = asProblem(error);
      setProblems(Object.fromEntries(problem.fields.map(({ field, message }) => [field, message])));
      if (problem.fields.length === 0) setSaid(problem.message);
    }
  };
  return (
    <View style={{ gap: space.near, marginTop: space.wide }}>
      <Txt as="heading" heading={2}>
        The shop
      </Txt>
      <Field label="Shop name" value={name} onChange={setName} problem={problems.name} />
      <Field
        label="Time zone"
        hint="Times on screens and reports are in this zone, such as Europe/London."
        value={timeZone}
        onChange={setTimeZone}
        problem={problems.timeZone}
      />
      <Button
        title="Keep"
        style={{ alignSelf: 'flex-start' }}
        onPress={() => void change({ name: name.trim(), timeZone: timeZone.trim() })}
      />
      <Pick<IdleChoice>
        label="A device that is not used is signed out after"
        options={idleChoices}
        value={idleChoiceOf(me.idleMinutes)}
        onChange={(choice) => void change({ idleMinutes: IDLE_MINUTES[choice] })}
      />
      <Toggle
        label="Demo mode: runs may be read from a simulated gauge set and kept"
        value={me.demo}
        onChange={(demo) => void change({ demo })}
      />
      <SensesSettings
        senses={me.senses ?? null}
        problems={problems}
        onKeep={(senses) => void change({ senses })}
      />
      {said ? (
        <Txt as="small" tone="quiet" live="polite">
          {said}
        </Txt>
      ) : null}
    </View>
  );
}
