import type { AuditedAct, AuditPage, AuditRow } from '@keen-bleed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import useSWRInfinite from 'swr/infinite';
import { useMe } from '../account/session';
import { sayDay, sayTime } from '../data/when';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import type { RequestProblem } from '../wire/api';

/** What each act is called where somebody reads who did it. */
const ACTS: Readonly<Record<AuditedAct, string>> = {
  'signed-in': 'signed in',
  refused: 'was not let in',
  'signed-out': 'signed out',
  'session-ended': 'signed a device out',
  password: 'changed a password',
  'second-factor': 'changed codes at sign-in',
  recovered: 'let somebody in again',
  'person-added': 'added a person',
  role: 'changed a role',
  deactivated: 'deactivated a person',
  activated: 'activated a person',
  shop: 'changed the shop',
  'unit-added': 'added a unit',
  'unit-edited': 'edited a unit',
  'unit-retired': 'retired a unit',
  'rule-set': 'changed rule sets',
  exported: 'took a file out',
};

const GROUPS = {
  all: null,
  doors: ['signed-in', 'refused', 'signed-out', 'session-ended'],
  people: [
    ...['password', 'second-factor', 'recovered', 'person-added', 'role'],
    ...['deactivated', 'activated'],
  ],
  records: ['shop', 'unit-added', 'unit-edited', 'unit-retired', 'rule-set', 'exported'],
} as const satisfies Record<string, readonly AuditedAct[] | null>;
type Group = keyof typeof GROUPS;

const keyOf = (at: number, before: AuditPage | null): string | null => {
  if (at === 0) return '/api/v1/audit';
  return before?.next ? `/api/v1/audit?after=${before.next}` : null;
};

/** Who came in, and what was changed of people, units and rules, and taken out; the newest first. */
export function AuditScreen() {
  const me = useMe();
  const { data, error, size, setSize, isValidating } = useSWRInfinite<AuditPage, RequestProblem>(
    me.role === 'lead' ? keyOf : () => null,
  );
  const [group, setGroup] = useState<Group>('all');
  if (me.role !== 'lead') {
    return (
      <Screen title="Audit trail">
        <Notice title="A lead reads the audit trail" text="Ask one of your shop’s leads." />
      </Screen>
    );
  }
  const wanted: readonly string[] | null = GROUPS[group];
  const rows = (data ?? [])
    .flatMap((page) => page.rows)
    .filter(({ what }) => wanted === null || wanted.includes(what));
  const hasMore = data?.at(-1)?.next != null;
  return (
    <Screen
      title="Audit trail"
      lead="Who came in, and what was changed of people, units and rules. Nobody can change it or take from it."
      width={860}
    >
      <View style={{ gap: space.gap, marginTop: space.step }}>
        <Segments<Group>
          label="Show"
          options={[
            { value: 'all', title: 'all' },
            { value: 'doors', title: 'sign-ins' },
            { value: 'people', title: 'people' },
            { value: 'records', title: 'records' },
          ]}
          value={group}
          onChange={setGroup}
        />
        {error && !data ? (
          <Notice manner="trouble" title="The audit trail cannot be shown" text={error.message} />
        ) : null}
        {!data && !error ? <Waiting rows={6} /> : null}
        <View role="list" aria-label="Audit trail">
          {rows.map((row, i) => (
            <Entry key={row.id} row={row} newDay={sayDay(row.atMs) !== dayOf(rows[i - 1])} />
          ))}
          {data && rows.length === 0 ? (
            <View role="listitem">
              <Txt tone="quiet">Nothing of this among what is shown.</Txt>
            </View>
          ) : null}
        </View>
        {hasMore ? (
          <Button
            title="Show older"
            busy={isValidating}
            style={{ alignSelf: 'flex-start' }}
            onPress={() => void setSize(size + 1)}
          />
        ) : null}
      </View>
    </Screen>
  );
}

const dayOf = (row: AuditRow | undefined) => (row ? sayDay(row.atMs) : null);

function Entry({ row, newDay }: { row: AuditRow; newDay: boolean }) {
  const wide = useWide();
  return (
    <View role="listitem">
      {newDay ? (
        <View style={{ paddingTop: space.gap, paddingBottom: space.near }}>
          <Txt as="heading" heading={2}>
            {sayDay(row.atMs)}
          </Txt>
        </View>
      ) : null}
      <Rule />
      <View style={{ flexDirection: 'row', gap: space.step, paddingVertical: space.near }}>
        <Txt as="numberSmall" tone="quiet" style={{ width: 74, paddingTop: 2 }}>
          {sayTime(row.atMs)}
        </Txt>
        <View style={{ flex: 1, flexDirection: wide ? 'row' : 'column', columnGap: space.gap }}>
          <View style={{ flex: 1 }}>
            <Txt>
              <Txt as="bodyBold">{row.by}</Txt> {ACTS[row.what]}
            </Txt>
            {row.about ? (
              <Txt as="small" tone="quiet">
                {row.about}
              </Txt>
            ) : null}
          </View>
          <Txt as="numberSmall" tone="quiet" style={{ paddingTop: 2 }}>
            {row.address.replace('::ffff:', '')}
          </Txt>
        </View>
      </View>
    </View>
  );
}
