import type { LogRecord, SeenFact, Unit, VisitNoteFact } from '@keen-bleed/contract';
import {
  partOfEntry,
  rigTitle,
  sayEntry,
  unitTitle,
  visitKind,
  type VisitEntry,
  type VisitState,
} from '@keen-bleed/core';
import { router, useLocalSearchParams } from 'expo-router';
import { useCallback, useEffect, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useFollowed } from '../data/useFollowed';
import { useLogRecord } from '../data/useRecords';
import { sayDay, sayMinute } from '../data/when';
import { keepPhotos } from '../photos/keepPhotos';
import { takeIn } from '../store/logs';
import { jobOfEntry } from '../store/newJob';
import { startJob } from '../store/startJob';
import { useLog, type LiveLog } from '../store/useLog';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { LinkOut } from '../ui/LinkOut';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { ChainBroken } from '../ui/ChainBroken';
import { OutboxSign } from '../ui/OutboxSign';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { VisitComposer } from './VisitComposer';
import { partWords, VisitEntries, VisitParts } from './VisitEntries';

export type LiveVisit = LiveLog<'visit', VisitState>;

/** A visit: what several people noted and saw on a unit or rig, and the way to add to it, with or without network. */
export function VisitScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const me = useMe();
  const live = useLog<'visit', VisitState>(visitKind, id, me);
  const { data, error, mutate } = useLogRecord<'visit'>(id);
  const again = useCallback(() => mutate(), [mutate]);
  useFollowed(data?.closedAtMs === null ? id : null, again);
  const trouble = useTakenIn(data, me);
  if (live === 'loading' || live === 'elsewhere') {
    return (
      <Screen title="Visit">
        {(error ?? trouble) && live === 'elsewhere' ? (
          <Notice
            manner="trouble"
            title="This visit cannot be shown"
            text={error?.message ?? 'This device has no room for it. Free some space on it.'}
            action={{ title: 'Try again', onPress: () => void mutate() }}
          />
        ) : (
          <Waiting />
        )}
      </Screen>
    );
  }
  return <Visit visit={live} openedBy={data?.by ?? null} chain={data?.chain} />;
}

/** Keeps what the server has of a visit on this device as well, so that it can be written in under a trailer. */
function useTakenIn(
  record: LogRecord<'visit'> | undefined,
  { shopId, personId }: { shopId: string; personId: string },
): boolean {
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    if (!record) return;
    takeIn({ shopId, personId }, record, record.byPersonId).then(
      () => setFailed(false),
      () => setFailed(true),
    );
  }, [personId, record, shopId]);
  return failed;
}

interface VisitProps {
  visit: LiveVisit;
  openedBy: string | null;
  /** As the server holds it; nothing where it has not said yet. */
  chain: LogRecord['chain'] | undefined;
}

function Visit({ visit, openedBy, chain }: VisitProps) {
  const me = useMe();
  const wide = useWide();
  const { header, state, record } = visit;
  const { units, reason } = header.made;
  const [front, ...towed] = units as [Unit, ...Unit[]];
  const [correcting, setCorrecting] = useState<VisitNoteFact | SeenFact | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const isOpen = state.closed === null;
  const mayWrite = me.role !== 'viewer';
  const tell = async (fact: Parameters<LiveVisit['record']>[0]): Promise<boolean> => {
    const problem = await record(fact).catch(
      () => 'This device could not keep that. Free some space on it, then try again.',
    );
    setTrouble(problem);
    return problem === null;
  };
  const openJob = async (entry: VisitEntry) => {
    const at = partOfEntry(entry);
    const text = [at ? partWords(at, units) : null, sayEntry(entry)].filter(Boolean).join(': ');
    const of = { id: entry.id, text, unitId: at?.unitId ?? front.id };
    try {
      const job = jobOfEntry(of, header.id, [front, ...towed], header.subject.rigId);
      router.push(`/job/${await startJob(me, job)}`);
    } catch {
      setTrouble('This device cannot keep a job. Free some space on it, then try again.');
    }
  };
  const lead = [
    `${sayDay(header.startedAtMs)}, ${sayMinute(header.startedAtMs)}`,
    visit.personId === me.personId ? 'opened by you' : openedBy ? `opened by ${openedBy}` : null,
    isOpen ? null : `closed ${sayMinute(state.closed?.atMs ?? 0)}`,
  ].filter((each) => each !== null);
  return (
    <Screen
      title={`Visit · ${rigTitle({ unit: front, towed })}`}
      aside={wide ? undefined : <OutboxSign />}
      lead={
        <View style={{ gap: space.hair }}>
          {reason ? <Txt as="bodyBold">{reason}</Txt> : null}
          <Txt tone="quiet">{lead.join(' · ')}</Txt>
        </View>
      }
    >
      <ChainBroken chain={chain} />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View
        style={{
          flexDirection: wide ? 'row' : 'column',
          gap: space.wide,
          marginTop: space.step,
        }}
      >
        {mayWrite && isOpen ? (
          <View style={{ width: wide ? 380 : '100%' }}>
            <VisitComposer
              key={correcting?.id ?? 'new'}
              units={units}
              correcting={correcting}
              onDone={async (fact, photos) => {
                const ids = await keepPhotos(header.id, photos).catch(() => null);
                if (!ids) {
                  setTrouble(
                    'This device has no room for the photos. Free some space on it, then try again.',
                  );
                  return false;
                }
                const named = ids.length > 0 ? { ...fact, photos: ids } : fact;
                if (!(await tell(named))) return false;
                setCorrecting(null);
                return true;
              }}
              onLeave={() => setCorrecting(null)}
            />
          </View>
        ) : null}
        <View style={{ flex: wide ? 1 : undefined, gap: space.gap }}>
          <VisitEntries
            visit={visit}
            onCorrect={mayWrite && isOpen ? setCorrecting : null}
            onTakeBack={(target) => void tell({ kind: 'retract', target })}
            onJob={mayWrite ? (entry) => void openJob(entry) : null}
          />
          <VisitParts visit={visit} />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>
            <LinkOut title="Report as PDF" href={`/api/v1/visits/${header.id}/report.pdf`} />
            <LinkOut title="Export as JSON" href={`/api/v1/visits/${header.id}/export.json`} />
            <LinkOut title="Export as CSV" href={`/api/v1/visits/${header.id}/export.csv`} />
          </View>
          {mayWrite && isOpen ? (
            <Button
              title="Close the visit"
              onPress={() => void tell({ kind: 'close' })}
              style={{ alignSelf: 'flex-start' }}
            />
          ) : null}
          {units.map((unit) => (
            <LinkTo key={unit.id} to={`/unit/${unit.id}`}>
              <Txt as="bodyBold" tone="accent">{`Sheet of ${unitTitle(unit)}`}</Txt>
            </LinkTo>
          ))}
          {isOpen ? null : (
            <Button title="To the work" manner="quiet" onPress={() => router.push('/work')} />
          )}
        </View>
      </View>
    </Screen>
  );
}
