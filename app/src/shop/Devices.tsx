import type { DeviceSession } from '@keen-bleed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { useAsked } from '../data/useAsked';
import { sayAgo, sayMinute } from '../data/when';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { ask, asProblem } from '../wire/api';

/** When a device was used last, as its owner knows it again. */
const sayUse = ({ isThis, lastAtMs, signedInAtMs }: DeviceSession, nowMs: number): string => {
  const since = `signed in ${sayAgo(signedInAtMs, nowMs)}`;
  if (isThis) return `this device, ${since}`;
  const ago = sayAgo(lastAtMs, nowMs);
  return `used ${ago === 'today' ? `today at ${sayMinute(lastAtMs)}` : ago}, ${since}`;
};

/** The devices one is signed in on; each can be signed out from here. */
export function Devices() {
  const { data, error, mutate } = useAsked('/api/v1/me/sessions');
  const [trouble, setTrouble] = useState<string | null>(null);
  const end = async ({ id }: DeviceSession) => {
    setTrouble(null);
    try {
      await ask('DELETE', `/api/v1/me/sessions/${id}`);
    } catch (thrown) {
      setTrouble(asProblem(thrown).message);
    }
    await mutate();
  };
  const [nowMs] = useState(() => Date.now());
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        My devices
      </Txt>
      {error && !data ? <Txt tone="quiet">{error.message}</Txt> : null}
      {!data && !error ? <Waiting rows={2} /> : null}
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View role="list" aria-label="My devices">
        {data?.map((each) => (
          <View key={each.id} role="listitem">
            <Rule />
            <View
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: space.step,
                paddingVertical: space.near,
              }}
            >
              <View style={{ flex: 1 }}>
                <Txt as="bodyBold">{each.device}</Txt>
                <Txt as="small" tone="quiet">
                  {sayUse(each, nowMs)}
                </Txt>
              </View>
              {each.isThis ? null : (
                <Button
                  title="Sign out"
                  label={`Sign out ${each.device}`}
                  onPress={() => void end(each)}
                />
              )}
            </View>
          </View>
        ))}
        <Rule />
      </View>
    </View>
  );
}
