import { useEffect } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useJobBlocks } from '../data/useRecords';
import { useOutboxPart } from '../store/outbox';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Txt } from '../ui/Txt';
import type { Tell } from './JobScreen';
import type { LiveJob } from './useJob';

/** Release: the server looks at everything again before it answers. */
export function ReleaseNow({ job, tell }: { job: LiveJob; tell: Tell | null }) {
  const me = useMe();
  const { header, state } = job;
  const blocks = useJobBlocks(header.id);
  const against = blocks.data?.blocks ?? [];
  const isSent = useOutboxPart(({ unsent }) => unsent === 0);
  const { mutate } = blocks;
  // What the server has against it is another once it holds what waited here.
  useEffect(() => {
    if (isSent) void mutate();
  }, [isSent, mutate]);
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        Release
      </Txt>
      <Txt tone="quiet">
        Local law and a licensed inspector decide whether it may go on the road; this record
        advises.
      </Txt>
      {state.asked ? (
        <Notice
          title="Release asked for: the vehicle is held until the server has answered"
          text={
            against.length > 0
              ? `It stands against: ${against.join(' ')}`
              : isSent
                ? 'It is with the server. Ask again if no answer comes within a minute.'
                : 'It is sent as soon as there is a network.'
          }
        />
      ) : against.length > 0 ? (
        <Notice manner="trouble" title="It cannot be released yet" text={against.join(' ')} />
      ) : null}
      {tell && me.role === 'lead' ? (
        <Button
          title={state.asked ? 'Ask again' : 'Release the vehicle'}
          manner="main"
          size="glove"
          onPress={() => {
            void tell({ kind: 'ask-release' }).then(() => mutate());
          }}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : (
        <Txt as="bodyBold">Passed. A lead releases it.</Txt>
      )}
    </View>
  );
}
