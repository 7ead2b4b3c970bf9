import { useLocalSearchParams } from 'expo-router';
import { View } from 'react-native';
import { useFollowed } from '../data/useFollowed';
import { useRunRecord } from '../data/useRecords';
import { RecordScreen } from '../record/RecordScreen';
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
  const live = useRun(id);
  const { data, error, mutate } = useRunRecord(live === 'elsewhere' ? id : null);
  useFollowed(data?.closedAtMs === null ? id : null, mutate);
  if (live !== 'loading' && live !== 'elsewhere') {
    if (!live.state.closed) return <LiveRunScreen run={live} />;
    return <RecordScreen header={live.header} events={live.events} by={me.name} />;
  }
  if (data) {
    return (
      <RecordScreen
        header={data.header}
        events={data.events}
        by={data.by}
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
