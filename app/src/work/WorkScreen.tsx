import { rigTitle } from '@keen-bleed/core';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { sayAgo, sayTime } from '../data/when';
import type { DeviceRun } from '../store/deviceStore';
import { openRunsOf } from '../store/startRun';
import { space } from '../theme/space';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';

/** Runs that are open on this device. */
export function WorkScreen() {
  const me = useMe();
  const [runs, setRuns] = useState<DeviceRun[] | null>(null);
  const [nowMs] = useState(() => Date.now());
  useEffect(() => {
    void openRunsOf(me).then(setRuns);
  }, [me]);
  return (
    <Screen title="Run" lead="Open on this device">
      {!runs ? <Waiting rows={2} /> : null}
      {runs?.length === 0 ? (
        <View style={{ gap: space.gap, marginTop: space.gap }}>
          <Notice
            title="No run is open here"
            text="Pick a unit in the yard and start one from its sheet."
          />
          <LinkTo to="/">
            <Txt as="bodyBold" tone="accent">
              To the yard
            </Txt>
          </LinkTo>
        </View>
      ) : null}
      <LinkTo to="/trace">
        <Txt as="bodyBold" tone="accent">
          Read a recorded trace
        </Txt>
      </LinkTo>
      <View role="list" aria-label="Open runs">
        {runs?.map((run) => (
          <View key={run.id} role="listitem">
            <Rule />
            <LinkTo to={`/run/${run.id}`} style={{ paddingVertical: space.step }}>
              <Txt as="heading">{rigTitle(run.header)}</Txt>
              <Txt tone="quiet">{`Started ${sayAgo(run.header.startedAtMs, nowMs)}, ${sayTime(run.header.startedAtMs)}. Go on where you were.`}</Txt>
            </LinkTo>
          </View>
        ))}
      </View>
    </Screen>
  );
}
