import type { RigUnderTest } from '@keen-bleed/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import useSWRImmutable from 'swr/immutable';
import type { Likely } from '../air/drawing';
import { inDrawing, rigKey } from '../air/useDrawn';
import { space, target } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import type { Conclusion } from './ProveSheet';
import type { LiveJob } from './useJob';

/** Likely parts that are offered at once. */
const OFFERED = 6;

/** The parts a job's failures or its suspects point at. */
export function useLikely(
  { header }: LiveJob,
  rig: RigUnderTest,
  isWanted: boolean,
): readonly Likely[] | null {
  const { bornOf, failures } = header.made;
  const keys = failures.map(({ key }) => key);
  const { data } = useSWRImmutable<Likely[], Error>(
    isWanted ? `likely ${header.id} ${rigKey(rig)}` : null,
    () =>
      inDrawing((drawing) =>
        drawing.likely(rig, keys, bornOf.kind === 'suspect' ? bornOf.faultIds : []),
      ),
  );
  return data ?? null;
}

const partOf = ({ part }: Likely): string => part.charAt(0).toUpperCase() + part.slice(1);

interface FoundNowProps {
  likely: readonly Likely[] | null;
  suspectsAt: string;
  reopened: string | null;
  onProve: ((begins: Conclusion | null) => void) | null;
  begin: (likely: Likely) => Conclusion;
}

/** Where a job has only been found: the parts it may be, and the ways to prove one. */
export function FoundNow({ likely, suspectsAt, reopened, onProve, begin }: FoundNowProps) {
  const [all, setAll] = useState(false);
  const shown = (likely ?? []).slice(0, all ? undefined : OFFERED);
  const rest = (likely?.length ?? 0) - shown.length;
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        What is it?
      </Txt>
      {reopened ? <Txt as="bodyBold">{`Reopened: ${reopened}`}</Txt> : null}
      {likely && likely.length > 0 ? (
        <>
          <Txt tone="quiet">
            The trade looks at these first. Tap the one that a check has proven.
          </Txt>
          <View role="list" aria-label="Likely parts">
            {shown.map((each) => (
              <View key={each.faultId} role="listitem">
                <Rule />
                <Pressable
                  role="button"
                  aria-label={`${partOf(each)}: ${each.title}`}
                  disabled={!onProve}
                  onPress={() => onProve?.(begin(each))}
                  style={{ minHeight: target.glove, justifyContent: 'center' }}
                >
                  <Txt as="bodyBold">{partOf(each)}</Txt>
                  <Txt tone="quiet">{each.title}</Txt>
                </Pressable>
              </View>
            ))}
            <Rule />
          </View>
        </>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        {rest > 0 ? (
          <Button title={`${rest} more`} manner="quiet" size="glove" onPress={() => setAll(true)} />
        ) : null}
        {onProve ? (
          <Button title="Another part" size="glove" onPress={() => onProve(null)} />
        ) : null}
        <Button
          title="Weigh the suspects"
          size="glove"
          onPress={() => router.push(`/unit/${suspectsAt}/suspects`)}
        />
      </View>
    </View>
  );
}
