import { useCallback, useEffect, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { sayDay, sayTime } from '../data/when';
import { sendNow, useOutbox } from '../store/outbox';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { RefusedLog } from './RefusedLog';
import { logTitle, waitingFor, type WaitingLog } from './waitingLog';

/** What has not reached the server, why, and every way out of it. */
export function UnsentScreen() {
  const me = useMe();
  const outbox = useOutbox();
  const [waiting, setWaiting] = useState<WaitingLog[] | null>(null);
  const [looks, setLooks] = useState(0);
  const load = useCallback(() => setLooks((before) => before + 1), []);
  useEffect(() => {
    let stale = false;
    void waitingFor(me).then((found) => {
      if (!stale) setWaiting(found);
    });
    return () => {
      stale = true;
    };
  }, [looks, me, outbox]);
  const refused = waiting?.filter(({ log }) => log.refused !== null) ?? [];
  const others = waiting?.filter(({ log }) => log.refused === null) ?? [];
  return (
    <Screen
      title="Not sent"
      lead="Kept on this device until the shop’s server has it. Nothing here is lost."
      width={760}
    >
      {!waiting ? <Waiting rows={3} /> : null}
      {waiting?.length === 0 ? (
        <Notice title="All is sent" text="The server holds everything that was recorded here." />
      ) : null}
      {refused.map((each) => (
        <RefusedLog key={each.log.id} waiting={each} onChanged={load} />
      ))}
      {others.length > 0 ? (
        <View style={{ gap: space.near, marginTop: space.gap }}>
          <Txt as="heading" heading={2}>
            On its way
          </Txt>
          <Txt tone="quiet">
            {(outbox.standing === 'refused' ? null : outbox.message) ??
              'These are sent as soon as the server can be reached.'}
          </Txt>
          <View role="list" aria-label="On its way">
            {others.map(({ log, facts }) => (
              <View key={log.id} role="listitem">
                <Rule />
                <View style={{ paddingVertical: space.near }}>
                  <Txt as="bodyBold">{logTitle(log)}</Txt>
                  <Txt as="small" tone="quiet">
                    {`${facts.length === 1 ? '1 entry' : `${facts.length} entries`}, started ${sayDay(log.header.startedAtMs)}, ${sayTime(log.header.startedAtMs)}`}
                  </Txt>
                </View>
              </View>
            ))}
            <Rule />
          </View>
          <Button
            title="Send now"
            onPress={() => void sendNow().then(load)}
            style={{ alignSelf: 'flex-start' }}
          />
        </View>
      ) : null}
    </Screen>
  );
}
