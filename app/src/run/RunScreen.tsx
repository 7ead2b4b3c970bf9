import type { RunFact } from '@keen-bleed/contract';
import type { NewFact } from '@keen-bleed/core';
import { useLocalSearchParams } from 'expo-router';
import { useCallback } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useFollowed } from '../data/useFollowed';
import { useLogRecord } from '../data/useRecords';
import { RecordScreen } from '../record/RecordScreen';
import { addToRecord } from '../store/addToRecord';
import { takeOver } from '../store/takeOver';
import { useRun } from '../store/useRun';
import { space } from '../theme/space';
import { Notice } from '../ui/Notice';
import { Waiting } from '../ui/Waiting';
import { LiveRunScreen } from './LiveRunScreen';
import { useWrittenElsewhere } from './useWrittenElsewhere';

/** One run: live where it is written on this device, otherwise its record. */
export function RunScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const me = useMe();
  const live = useRun(id, me);
  const here = live === 'loading' || live === 'elsewhere' ? null : live;
  // Whoever may only look does not walk into a run, whoever's phone it is.
  const mayRecord = me.role !== 'viewer';
  useWrittenElsewhere(mayRecord && here?.isWritable && !here.state.closed ? here : null, me);
  const taken = here?.state.takeOvers.at(-1);
  const isOurs = mayRecord && here?.isWritable && (taken === undefined || taken.lane === here.lane);
  const isLeft = here !== null && here.state.closed === null && !isOurs;
  if (here && isOurs && !here.state.closed) return <LiveRunScreen run={here} />;
  return <KeptRun id={id} live={live} isLeft={isLeft} mayRecord={mayRecord} />;
}

interface KeptRunProps {
  id: string;
  live: ReturnType<typeof useRun>;
  /** It is open, and not ours to go on with. */
  isLeft: boolean;
  mayRecord: boolean;
}

/** A run as its record has it. Apart from the live one, which must not ask for it at each mark. */
function KeptRun({ id, live, isLeft, mayRecord }: KeptRunProps) {
  const me = useMe();
  const here = live === 'loading' || live === 'elsewhere' ? null : live;
  const { data, error, mutate } = useLogRecord<'run'>(live === 'elsewhere' || isLeft ? id : null);
  const again = useCallback(() => mutate(), [mutate]);
  useFollowed(data?.closedAtMs === null ? id : null, again);
  // What is kept here is whole and at hand; the server's word beside it tells who and what else.
  const shown = here ?? data;
  if (shown) {
    const byMe = here?.personId === me.personId;
    const isOpener = (here ? byMe : data?.byPersonId === me.personId) && mayRecord;
    const isOpen = isLeft || data?.closedAtMs === null;
    const addElsewhere = async (fact: NewFact<RunFact>) => {
      const problem = await addToRecord(id, me, shown.facts, fact);
      await mutate();
      return problem;
    };
    const mayAdd = mayRecord && (here === null || here.isWritable);
    return (
      <RecordScreen
        header={shown.header}
        facts={shown.facts}
        writers={shown.writers}
        by={data?.by ?? (byMe ? me.name : 'somebody else on this device')}
        {...(data
          ? { startedAtMs: data.startedAtMs, overlapping: data.overlapping, chain: data.chain }
          : {})}
        onAdd={mayAdd ? (here?.record ?? addElsewhere) : null}
        mayAnswerClock={isOpener || (me.role === 'lead' && here === null)}
        following={isOpen}
        onTakeOver={
          data && isOpen && (isOpener || me.role === 'lead') ? () => takeOver(me, data) : null
        }
      />
    );
  }
  return (
    <View role="main" style={{ padding: space.gap }}>
      {error ? (
        <Notice
          manner="trouble"
          title="This run cannot be shown"
          text={error.message}
          action={{ title: 'Try again', onPress: () => void mutate() }}
        />
      ) : (
        <Waiting />
      )}
    </View>
  );
}
