import type { Me } from '@keen-bleed/contract';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { enter } from './session';
import { SignInForm } from './SignInForm';

/** Stands over a screen whose session has ended; the screen and all that was typed on it stay below. */
export function SignInAgain({ me }: { me: Me }) {
  return (
    <Sheet title="Sign in again" at="middle">
      <Txt tone="quiet">Your session has ended. What you were doing is still here.</Txt>
      <SignInForm name={me.signInName} onIn={(found) => void enter(found)} />
    </Sheet>
  );
}
