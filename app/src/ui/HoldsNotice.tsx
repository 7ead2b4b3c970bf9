import { View } from 'react-native';
import { space } from '../theme/space';
import { Rule } from './Rule';
import { Txt } from './Txt';

/** Why a vehicle may not leave, ruled heavily; nothing where it may. */
export function HoldsNotice({ holds }: { holds: readonly string[] }) {
  if (holds.length === 0) return null;
  return (
    <View role="region" aria-label="Out of service" style={{ gap: space.hair }}>
      <Rule heavy />
      <Txt as="heading" tone="fail">
        Out of service
      </Txt>
      {holds.map((hold) => (
        <Txt key={hold} as="bodyBold">
          {hold.replace(/^Out of service: /, '')}
        </Txt>
      ))}
      <Rule heavy />
    </View>
  );
}
