import { createElement, Suspense, use, useState, type ComponentType } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Waiting } from '../ui/Waiting';
import type * as beyondYard from './beyondYard';

type BeyondYard = typeof beyondYard;

let asked: Promise<BeyondYard> | null = null;
let arrived: BeyondYard | null = null;

/**
 * Asks for every screen but the yard; once, however often it is called, and anew where it failed.
 *
 * @throws an Error of the bundler where the part cannot be had: no network, or the server has a newer one
 */
export function askBeyondYard(): Promise<BeyondYard> {
  asked ??= import('./beyondYard').then(
    (part) => (arrived = part),
    (error: unknown) => {
      asked = null;
      throw error;
    },
  );
  return asked;
}

/** A screen that comes with the part beyond the yard; rows that are on their way stand in until it is here. */
export function laterScreen(pick: (beyond: BeyondYard) => ComponentType): ComponentType {
  function Arrived({ part }: { part: Promise<BeyondYard> }) {
    return createElement(pick(arrived ?? use(part)));
  }
  return function LaterScreen() {
    // One try for as long as the screen stands: a failed one is shown, and the next screen tries anew.
    const [part] = useState(askBeyondYard);
    return (
      <Suspense fallback={<OnItsWay />}>
        <Arrived part={part} />
      </Suspense>
    );
  };
}

function OnItsWay() {
  const palette = usePalette();
  return (
    <View style={{ flex: 1, padding: space.gap, backgroundColor: palette.ground }}>
      <Waiting />
    </View>
  );
}
