import type { PedalCall } from '@keen-bleed/contract';
import { useLocalSearchParams } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { speak } from '../ui/speak';
import { Txt } from '../ui/Txt';
import { useWakeLock } from '../ui/useWakeLock';
import { ask } from '../wire/api';
import { followStream } from '../wire/followStream';
import { CALLS } from './pedalWords';
import { LOST_AFTER_MS } from './useCaller';

interface Called {
  call: PedalCall | null;
  seq: number;
}

/** The helper's phone: the one word that counts for whoever holds the pedal, and whether it can be trusted. */
export function PedalScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const palette = usePalette();
  const [aloud, setAloud] = useState(false);
  const { called, touch } = useCalled(id, aloud);
  useWakeLock();
  const lost = touch === 'lost';
  const isDown = called?.call === 'press' && !lost;
  return (
    <View role="main" style={{ flex: 1, padding: space.gap, gap: space.gap }}>
      <Txt as="bodyBold" heading={1}>
        On the pedal
      </Txt>
      <View
        style={{
          flex: 1,
          justifyContent: 'center',
          alignItems: 'center',
          gap: space.gap,
          padding: space.gap,
          borderWidth: 3,
          borderColor: lost ? palette.fail : palette.edge,
          // Filled while the pedal is down: it is seen from the corner of an eye.
          backgroundColor: isDown ? palette.ink : palette.ground,
        }}
      >
        <Txt
          as="call"
          live="assertive"
          style={{ textAlign: 'center' }}
          tone={isDown ? 'ground' : lost ? 'fail' : 'ink'}
        >
          {lost
            ? 'Lost touch'
            : called?.call
              ? CALLS[called.call]
              : touch === 'joining'
                ? 'One moment'
                : 'Wait for the call'}
        </Txt>
        {lost ? (
          <Txt as="bodyBold" style={{ textAlign: 'center' }}>
            {`Listen for the voice. The last call here was “${called?.call ? CALLS[called.call] : 'none'}”.`}
          </Txt>
        ) : null}
      </View>
      <Button
        size="glove"
        title={aloud ? 'Spoken aloud' : 'Speak it aloud'}
        onPress={() => {
          if (!aloud) speak('Calls are spoken.');
          setAloud(!aloud);
        }}
      />
      <LinkTo to={`/unit/${id}/hunt`}>
        <Txt as="bodyBold" tone="accent">
          Back to the hunt
        </Txt>
      </LinkTo>
    </View>
  );
}

/** Follows what is called to a unit's pedal, and tells the caller what is shown here. */
function useCalled(
  unitId: string,
  aloud: boolean,
): { called: Called | null; touch: 'joining' | 'kept' | 'lost' } {
  const [called, setCalled] = useState<Called | null>(null);
  const [lastMs, setLastMs] = useState<number | null>(null);
  /** When the caller could last be told what is shown here. */
  const [toldMs, setToldMs] = useState<number | null>(null);
  const [openedMs] = useState(() => Date.now());
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    const stop = followStream(`/api/v1/units/${unitId}/pedal/live`, {
      call: (data) => {
        setCalled(JSON.parse(data) as Called);
        setLastMs(Date.now());
      },
    });
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => {
      stop();
      clearInterval(timer);
    };
  }, [unitId]);
  const seq = called?.seq ?? null;
  const call = called?.call ?? null;
  useEffect(() => {
    // What is shown is told each time the caller says that they are there.
    if (seq !== null && lastMs !== null) {
      ask('POST', `/api/v1/units/${unitId}/pedal/heard`, { seq }).then(
        () => setToldMs(Date.now()),
        // Until one comes through again, the caller does not know that this is seen.
        () => undefined,
      );
    }
  }, [lastMs, seq, unitId]);
  useEffect(() => {
    if (aloud && call !== null) speak(CALLS[call]);
  }, [aloud, call, seq]);
  // Nothing stands until somebody calls: only a caller who was there and fell silent is lost.
  const silentMs = nowMs - Math.min(lastMs ?? openedMs, toldMs ?? lastMs ?? openedMs);
  const touch =
    lastMs === null
      ? silentMs > LOST_AFTER_MS
        ? 'lost'
        : 'joining'
      : call !== null && silentMs > LOST_AFTER_MS
        ? 'lost'
        : 'kept';
  return { called, touch };
}
