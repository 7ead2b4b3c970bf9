import { useState } from 'react';
import { View } from 'react-native';
import { leave, useMe } from '../account/session';
import { asProblem } from '../wire/api';
import { setPrefs, usePrefs, type Prefs } from '../prefs/prefs';
import { useOutbox } from '../store/outbox';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { LinkOut } from '../ui/LinkOut';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { PlainHttp } from '../ui/PlainHttp';
import { Screen } from '../ui/Screen';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { Devices } from './Devices';
import { OwnPassword } from './OwnPassword';
import { PeopleList } from './PeopleList';
import { SecondFactor } from './SecondFactor';
import { ShopSettings } from './ShopSettings';

/** The shop: its people, this device's wishes, and the way out. */
export function ShopScreen() {
  const me = useMe();
  const prefs = usePrefs();
  const wide = useWide();
  const { unsent } = useOutbox();
  const [trouble, setTrouble] = useState<string | null>(null);
  const out = async (everywhere: boolean) => {
    try {
      await leave(everywhere);
    } catch (error) {
      setTrouble(asProblem(error).message);
    }
  };
  const choice = <K extends keyof Prefs>(
    key: K,
    label: string,
    options: readonly { value: Prefs[K]; title: string }[],
  ) => (
    <View style={{ gap: space.hair }}>
      <Txt as="smallBold">{label}</Txt>
      <Segments
        label={label}
        options={options}
        value={prefs[key]}
        onChange={(value) => setPrefs({ [key]: value })}
      />
    </View>
  );
  return (
    <Screen title={me.shopName} lead={`${me.name}, ${me.role}`}>
      <View
        style={{
          flexDirection: wide ? 'row' : 'column',
          gap: space.far,
          marginTop: space.gap,
        }}
      >
        <View style={{ flex: wide ? 1 : undefined }}>
          <PeopleList />
          <ShopSettings />
          <View style={{ gap: space.near, marginTop: space.wide, alignItems: 'flex-start' }}>
            <Txt as="heading" heading={2}>
              Rule sets, dates and the trail
            </Txt>
            <LinkTo to="/rules">
              <Txt as="bodyBold" tone="accent">
                Rule sets: steps, limits and their sources
              </Txt>
            </LinkTo>
            <LinkTo to="/words">
              <Txt as="bodyBold" tone="accent">
                Words: what each term means
              </Txt>
            </LinkTo>
            {me.role === 'lead' ? (
              <LinkTo to="/audit">
                <Txt as="bodyBold" tone="accent">
                  Audit trail: who came in, and what was changed
                </Txt>
              </LinkTo>
            ) : null}
            {me.role === 'lead' ? (
              <LinkOut title="The whole shop as one file" href="/api/v1/shop/export.jsonl" />
            ) : null}
            <LinkOut title="What is due, for a calendar" href="/api/v1/due.ics" />
          </View>
        </View>
        <View style={{ gap: space.gap, width: wide ? 360 : '100%' }}>
          <Txt as="heading" heading={2}>
            This device
          </Txt>
          <PlainHttp />
          {choice('theme', 'Theme', [
            { value: 'system', title: 'as the device' },
            { value: 'shop', title: 'shop, dark' },
            { value: 'yard', title: 'yard, light' },
          ])}
          {choice('unit', 'Pressure in', [
            { value: 'psi', title: 'psi' },
            { value: 'kPa', title: 'kPa' },
            { value: 'bar', title: 'bar' },
          ])}
          {choice('hand', 'Pad hand', [
            { value: 'right', title: 'right' },
            { value: 'left', title: 'left' },
          ])}
          {choice('voice', 'Spoken steps', [
            { value: 'off', title: 'off' },
            { value: 'on', title: 'on' },
          ])}
          <Txt as="small" tone="quiet">
            A run always speaks the unit of the gauge in front of you.
          </Txt>
          <Txt as="heading" heading={2}>
            My password
          </Txt>
          <OwnPassword />
          <SecondFactor />
          <Devices />
          <Txt as="heading" heading={2}>
            Sign out
          </Txt>
          {unsent > 0 ? (
            <Txt>{`${unsent} marks are not sent yet. They stay on this device until you sign in here again.`}</Txt>
          ) : null}
          {trouble ? <Notice manner="trouble" title={trouble} /> : null}
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>
            <Button title="Sign out" onPress={() => void out(false)} />
            <Button title="Sign out everywhere" onPress={() => void out(true)} />
          </View>
        </View>
      </View>
    </Screen>
  );
}
