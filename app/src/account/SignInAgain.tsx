import type { Me } from '@keen-bleed/contract';
import { useEffect } from 'react';
import { useOutbox } from '../store/outbox';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { enter, sessionEnded } from './session';
import { SignInForm } from './SignInForm';
import { useMayPutOff, useSignInPutOff, wantSignIn } from './signInPutOff';

/** Hears from what is sent that the session has ended: nothing else may be asked for a long while. */
export function useHearsEnd(): void {
  const { standing } = useOutbox();
  useEffect(() => {
    if (standing === 'signed-out') sessionEnded();
  }, [standing]);
}

/** Stands over a screen whose session has ended, unless something is timed on it; all that was typed stays below. */
export function SignInAgain({ me }: { me: Me }) {
  const isPutOff = useSignInPutOff();
  const mayPutOff = useMayPutOff();
  useEffect(() => () => wantSignIn(false), []);
  if (isPutOff) return null;
  const later = () => wantSignIn(false);
  return (
    <Sheet title="Sign in again" at="middle" {...(mayPutOff ? { onLeave: later } : {})}>
      <Txt tone="quiet">Your session has ended. What you were doing is still here.</Txt>
      <SignInForm name={me.signInName} onIn={(found) => void enter(found)} />
      {mayPutOff ? (
        <Button
          title="Later"
          label="Later: go on without signing in"
          size="glove"
          style={{ marginTop: space.near - space.gap }}
          onPress={later}
        />
      ) : null}
    </Sheet>
  );
}
