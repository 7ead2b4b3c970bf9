import type { JobFact, LogRecord, Unit } from '@keen-bleed/contract';
import { holdsOf, rigTitle, unitTitle, type NewFact, type RigUnderTest } from '@keen-bleed/core';
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useUnits } from '../data/useRecords';
import { sayAgo, sayDay } from '../data/when';
import { keepPhotos } from '../photos/keepPhotos';
import { PlanBeside } from '../plan/PlanBeside';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { ChainBroken } from '../ui/ChainBroken';
import { LinkOut } from '../ui/LinkOut';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { OutboxSign } from '../ui/OutboxSign';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { Waiting } from '../ui/Waiting';
import { BeforeAfter } from './BeforeAfter';
import { JobNow } from './JobNow';
import { JobSide } from './JobSide';
import { JobStory } from './JobStory';
import { Rail, StationHeads } from './Rail';
import { useJob, type LiveJob } from './useJob';

/** A job: where it stands on its rail, what is to be done now, and what was done. */
export function JobScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { job, record, problem, again } = useJob(id);
  if (job === 'loading' || job === 'elsewhere') {
    return (
      <Screen title="Job">
        {problem && job === 'elsewhere' ? (
          <Notice
            manner="trouble"
            title="This job cannot be shown"
            text={problem}
            action={{ title: 'Try again', onPress: again }}
          />
        ) : (
          <Waiting />
        )}
      </Screen>
    );
  }
  return <Job job={job} openedBy={record?.by ?? null} chain={record?.chain} />;
}

/** Keeps a fact of the job, with photos that go with it; whether it was kept. */
export type Tell = (fact: NewFact<JobFact>, photos?: readonly Blob[]) => Promise<boolean>;

interface JobProps {
  job: LiveJob;
  openedBy: string | null;
  /** As the server holds it; nothing where it has not said yet. */
  chain: LogRecord['chain'] | undefined;
}

function Job({ job, openedBy, chain }: JobProps) {
  const me = useMe();
  const wide = useWide();
  const { header, state } = job;
  const { made } = header;
  const [nowMs] = useState(() => Date.now());
  const [trouble, setTrouble] = useState<string | null>(null);
  const [box, onBox] = useBoxSize();
  const rig = useRigNow(made.units);
  const mayWrite = me.role !== 'viewer';
  const tell: Tell = async (fact, photos = []) => {
    const ids = await keepPhotos(header.id, photos).catch(() => null);
    if (!ids) {
      setTrouble('This device has no room for the photos. Free some space on it, then try again.');
      return false;
    }
    const found = await job
      .record(ids.length > 0 ? ({ ...fact, photos: ids } as NewFact<JobFact>) : fact)
      .catch(() => 'This device could not keep that. Free some space on it, then try again.');
    setTrouble(found);
    return found === null;
  };
  const holds = state.closed ? [] : holdsOf(state);
  const isOver = state.closed !== null;
  const width = Math.min(680, box.width);
  const readings = useMemo(
    () => state.owed.flatMap(({ done }) => done?.readings ?? []),
    [state.owed],
  );
  const at = state.proven?.at ?? state.fitted.at(-1)?.at ?? null;
  const ringed = useMemo(
    () => new Set(at ? [`${made.units.findIndex(({ id }) => id === at.unitId)} ${at.partId}`] : []),
    [at, made.units],
  );
  const standing = state.released
    ? `Released ${sayDay(state.released.atServerMs)}`
    : state.given
      ? `Closed without repair: ${state.given.because}`
      : null;
  return (
    <Screen
      title={rigTitle({ unit: made.units[0]!, towed: made.units.slice(1) })}
      aside={wide ? undefined : <OutboxSign />}
      lead={
        <View style={{ gap: space.hair }}>
          <Txt as="bodyBold">{made.found}</Txt>
          <Txt tone="quiet">
            {[
              `Job opened ${sayAgo(header.startedAtMs, nowMs)}`,
              job.personId === me.personId ? 'by you' : openedBy ? `by ${openedBy}` : null,
            ]
              .filter(Boolean)
              .join(' ')}
          </Txt>
        </View>
      }
    >
      <ChainBroken chain={chain} />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View onLayout={onBox} style={{ marginTop: space.near }}>
        <Rule heavy={holds.length > 0} />
        {holds.map((hold) => (
          <Txt key={hold} as="bodyBold" style={{ paddingTop: space.near }}>
            {hold}
          </Txt>
        ))}
        {standing ? (
          <Txt
            as="bodyBold"
            tone={state.released ? 'pass' : 'ink'}
            style={{ paddingTop: space.near }}
          >
            {standing}
          </Txt>
        ) : null}
        {width > 0 ? (
          <View
            role="img"
            aria-label={`The job stands at ${isOver ? 'its end' : state.station}`}
            style={{ paddingTop: space.step }}
          >
            <StationHeads width={width} at={state.station} />
            <Rail
              station={state.station}
              tone={state.station === 'release' ? 'passed' : holds.length > 0 ? 'holds' : 'open'}
              width={width}
              done={state.released !== null}
            />
          </View>
        ) : null}
      </View>
      <View
        style={{ flexDirection: wide ? 'row' : 'column', gap: space.wide, marginTop: space.gap }}
      >
        <View style={{ flex: wide ? 1 : undefined, gap: space.gap }}>
          {isOver ? null : (
            <JobNow job={job} rig={rig} tell={mayWrite ? tell : null} nowMs={nowMs} />
          )}
          <BeforeAfter readings={readings} />
          <JobStory
            job={job}
            onTakeBack={mayWrite ? (target) => void tell({ kind: 'retract', target }) : null}
          />
        </View>
        <View style={{ width: wide ? 320 : '100%', gap: space.gap }}>
          <JobSide job={job} tell={mayWrite ? tell : null} />
          {wide && at ? <PlanBeside rig={rig} title="Where it sits" at={ringed} /> : null}
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>
            <LinkOut title="Release page" href={`/api/v1/jobs/${header.id}/release.pdf`} />
            <LinkOut title="Share as a file" href={`/api/v1/jobs/${header.id}/share.html`} />
            <LinkOut title="Export as JSON" href={`/api/v1/jobs/${header.id}/export.json`} />
          </View>
          {made.units.map((unit) => (
            <LinkTo key={unit.id} to={`/unit/${unit.id}`}>
              <Txt as="bodyBold" tone="accent">{`Rig sheet of ${unitTitle(unit)}`}</Txt>
            </LinkTo>
          ))}
        </View>
      </View>
    </Screen>
  );
}

/** The units of a job as they are now, with what was fitted since. */
function useRigNow(units: readonly Unit[]): RigUnderTest {
  const { data } = useUnits();
  return useMemo(() => {
    const now = units.map((old) => data?.find(({ id }) => id === old.id) ?? old);
    const [unit, ...towed] = now;
    return { unit: unit!, towed };
  }, [data, units]);
}
