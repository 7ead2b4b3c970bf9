import { useLocalSearchParams } from 'expo-router';
import { View } from 'react-native';
import { useFollowed } from '../data/useFollowed';
import { useLogRecord } from '../data/useRecords';
import { RecordScreen } from '../record/RecordScreen';
import { answerClock } from '../store/answerClock';
import { useRun } from '../store/useRun';
import { space } from '../theme/space';
import { Notice } from '../ui/Notice';
import { Waiting } from '../ui/Waiting';
import { LiveRunScreen } from './LiveRunScreen';
import { useMe } from '../account/session';

/** One run: live where it is open on this device, otherwise its record. */
export function RunScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const me = useMe();
  const live = useRun(id, me);
  const { data, error, mutate } = useLogRecord<'run'>(live === 'elsewhere' ? id : null);
  useFollowed(data?.closedAtMs === null ? id : null, mutate);
  if (live !== 'loading' && live !== 'elsewhere') {
    const isMine = live.personId === me.personId;
    if (!live.state.closed && isMine) return <LiveRunScreen run={live} />;
    return (
      <RecordScreen
        header={live.header}
        facts={live.facts}
        by={isMine ? me.name : 'somebody else on this device'}
        onAnswer={isMine ? live.record : null}
      />
    );
  }
  if (data) {
    return (
      <RecordScreen
        header={data.header}
        facts={data.facts}
        by={data.by}
        startedAtMs={data.startedAtMs}
        onAnswer={
          me.role === 'lead' || (data.byPersonId === me.personId && me.role !== 'viewer')
            ? async (fact) => {
                const problem = await answerClock(id, me, data.facts, fact);
                await mutate();
                return problem;
              }
            : null
        }
        overlapping={data.overlapping}
        following={data.closedAtMs === null}
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
