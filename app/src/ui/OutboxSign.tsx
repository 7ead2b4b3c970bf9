import { router } from 'expo-router';
import { Pressable } from 'react-native';
import { sendNow, useOutbox } from '../store/outbox';
import { target } from '../theme/space';
import { Txt } from './Txt';

interface OutboxSignProps {
  /** With the reason in a sentence, where there is room. */
  wordy?: boolean;
  /** As words in a line, not to be pressed. */
  inline?: boolean;
  /** Asks to sign in, where the session ends while something is timed. */
  onSignIn?: () => void;
}

/** Says plainly what has not reached the server; pressing it tries again, or shows what was not taken. */
export function OutboxSign({ wordy = false, inline = false, onSignIn }: OutboxSignProps) {
  const { unsent, standing, message, refused } = useOutbox();
  if (unsent === 0 && standing !== 'refused') {
    return (
      <Txt as="small" tone="quiet" testID="outbox">
        all sent
      </Txt>
    );
  }
  const why = {
    sent: '',
    sending: 'sending',
    stumbling: 'server trouble',
    offline: 'no network',
    'database-away': 'database down',
    'signed-out': 'sign in to send',
    refused: 'not taken by the server',
  }[standing];
  const hasReasons = standing === 'refused' || standing === 'stumbling';
  const count = unsent === 0 && refused > 0 ? '1 record not sent' : `${unsent} not sent`;
  const words = why ? `${count} · ${why}` : count;
  const tone = standing === 'sending' ? 'quiet' : 'fail';
  if (inline) {
    // A line beside a run has room for some twenty letters: what is wrong goes before how much waits.
    const brief =
      standing === 'refused' ? 'not taken' : standing === 'signed-out' ? 'sign in' : why;
    const wait = unsent === 1 ? '1 waits' : `${unsent} wait`;
    return (
      <Txt
        as="smallBold"
        tone={tone}
        live="polite"
        lines={1}
        testID="outbox"
        style={{ flexShrink: 1 }}
      >
        {standing === 'sending' ? count : standing === 'offline' ? words : `${brief}: ${wait}`}
      </Txt>
    );
  }
  const [does, onPress] = hasReasons
    ? ['See why', () => router.push('/unsent')]
    : standing === 'signed-out' && onSignIn
      ? ['Sign in', onSignIn]
      : ['Send now', () => void sendNow()];
  return (
    <Pressable
      role="button"
      aria-label={`${count}, ${why}. ${does}`}
      onPress={onPress}
      style={{ minHeight: target.finger, justifyContent: 'center' }}
    >
      <Txt as="smallBold" tone={tone} live="polite" testID="outbox">
        {words}
      </Txt>
      {wordy && message ? (
        <Txt as="small" tone="quiet">
          {message}
        </Txt>
      ) : null}
    </Pressable>
  );
}
