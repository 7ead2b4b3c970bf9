import type { Unit } from '@keen-bleed/contract';
import { useLocalSearchParams } from 'expo-router';
import type { ReactNode } from 'react';
import { Notice } from '../ui/Notice';
import { Screen } from '../ui/Screen';
import { Waiting } from '../ui/Waiting';
import { useRigOf } from './useRigOf';

interface OfRigProps {
  title: string;
  children: (units: readonly Unit[], rigId: string | null) => ReactNode;
}

/** A page of the unit that the address names with what it is coupled with; until that is known, a page that waits. */
export function OfRig({ title, children }: OfRigProps) {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { units, rigId, error } = useRigOf(id);
  if (units) return children(units, rigId);
  return (
    <Screen title={title}>
      {error ? (
        <Notice manner="trouble" title="This unit cannot be shown" text={error.message} />
      ) : (
        <Waiting rows={6} />
      )}
    </Screen>
  );
}
