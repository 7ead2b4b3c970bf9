import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { useSession } from './session';
import { wantSignIn } from './signInPutOff';

/** Beside something that is timed: that the session has ended, that this goes on, and the way to sign in again. */
export function SignInDue() {
  const session = useSession();
  const palette = usePalette();
  if (session.standing !== 'signed-in' || !session.stale) return null;
  return (
    <View
      role="status"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: space.step,
        borderLeftWidth: 4,
        borderLeftColor: palette.fail,
        paddingLeft: space.step,
      }}
    >
      <Txt as="small" style={{ flex: 1 }}>
        Session ended. Go on: marks wait here until you sign in.
      </Txt>
      <Button title="Sign in" onPress={() => wantSignIn(true)} />
    </View>
  );
}
