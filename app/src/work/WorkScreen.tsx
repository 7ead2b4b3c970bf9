import { rigTitle, unitsOfHeader } from '@keen-bleed/core';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useOpenLogs } from '../data/useRecords';
import { sayAgo, sayMinute } from '../data/when';
import type { DeviceLog } from '../store/database';
import { openLogs } from '../store/logs';
import { useOutbox } from '../store/outbox';
import { space } from '../theme/space';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';

/** One thing that is being worked on. */
interface Work {
  id: string;
  kind: 'run' | 'visit';
  title: string;
  said: string;
}

const kindWords = { run: 'Run', visit: 'Visit' } as const;

/** All that is open: here, ready to go on with, and elsewhere in the shop. */
export function WorkScreen() {
  const me = useMe();
  const [here, setHere] = useState<DeviceLog[] | null>(null);
  const shop = useOpenLogs();
  const { refused } = useOutbox();
  const [nowMs] = useState(() => Date.now());
  useEffect(() => {
    void openLogs(me).then(setHere);
  }, [me]);
  const onDevice = (here ?? []).flatMap((log): Work[] =>
    log.kind === 'job'
      ? []
      : [
          {
            id: log.id,
            kind: log.kind,
            title: titleOf(log),
            said: `Started ${sayAgo(log.header.startedAtMs, nowMs)}, ${sayMinute(log.header.startedAtMs)}. Go on where you were.`,
          },
        ],
  );
  // Jobs have a place of their own.
  const elsewhere = (shop.data ?? [])
    .filter((row) => !onDevice.some(({ id }) => id === row.id))
    .flatMap((row): Work[] =>
      row.kind === 'job'
        ? []
        : [
            {
              id: row.id,
              kind: row.kind,
              title: row.title,
              said: [
                row.byPersonId === me.personId ? 'You, on another device' : row.by,
                `started ${sayAgo(row.startedAtMs, nowMs)}, ${sayMinute(row.startedAtMs)}`,
                row.kind === 'visit' ? row.headline : null,
              ]
                .filter(Boolean)
                .join(' · '),
            },
          ],
    );
  const nothing = here && onDevice.length === 0 && elsewhere.length === 0 && !shop.isLoading;
  return (
    <Screen title="Work" lead="Runs and visits that are open">
      {refused > 0 ? (
        <LinkTo to="/unsent">
          <Txt as="bodyBold" tone="fail">
            {refused === 1
              ? '1 record is not sent: see why'
              : `${refused} records are not sent: see why`}
          </Txt>
        </LinkTo>
      ) : null}
      {!here ? <Waiting rows={2} /> : null}
      {nothing ? (
        <View style={{ gap: space.gap, marginTop: space.gap }}>
          <Notice
            title="Nothing is open"
            text="Pick a unit in the yard, and start a run or a visit from its sheet."
          />
          <LinkTo to="/">
            <Txt as="bodyBold" tone="accent">
              To the yard
            </Txt>
          </LinkTo>
        </View>
      ) : null}
      <WorkList title="On this device" work={onDevice} />
      <WorkList title="Elsewhere in the shop" work={elsewhere} />
      {shop.error && !shop.data ? (
        <Notice
          title="What is open on other devices cannot be shown"
          text={shop.error.message}
          action={{ title: 'Try again', onPress: () => void shop.mutate() }}
        />
      ) : null}
      <LinkTo to="/drains">
        <Txt as="bodyBold" tone="accent">
          Drain round of the yard
        </Txt>
      </LinkTo>
      <LinkTo to="/trace">
        <Txt as="bodyBold" tone="accent">
          Read a recorded trace
        </Txt>
      </LinkTo>
    </Screen>
  );
}

function titleOf(log: DeviceLog): string {
  const [unit, ...towed] = unitsOfHeader(log.header);
  return unit ? rigTitle({ unit, towed }) : '';
}

function WorkList({ title, work }: { title: string; work: readonly Work[] }) {
  if (work.length === 0) return null;
  return (
    <View style={{ marginTop: space.step }}>
      <Txt as="heading" heading={2}>
        {title}
      </Txt>
      <View role="list" aria-label={title}>
        {work.map(({ id, kind, title: on, said }) => (
          <View key={id} role="listitem">
            <Rule />
            <LinkTo to={`/${kind}/${id}`} style={{ paddingVertical: space.step, gap: 2 }}>
              <Txt as="bodyBold">
                <Txt tone="quiet">{`${kindWords[kind]}  `}</Txt>
                {on}
              </Txt>
              <Txt as="small" tone="quiet">
                {said}
              </Txt>
            </LinkTo>
          </View>
        ))}
        <Rule />
      </View>
    </View>
  );
}
