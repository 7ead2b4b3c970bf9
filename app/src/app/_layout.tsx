import { Slot } from 'expo-router';
import { useEffect, useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { SWRConfig, type Cache } from 'swr';
import { Doorstep } from '../account/Doorstep';
import { FirstLeadForm } from '../account/FirstLeadForm';
import { enter, findSession, sessionEnded, useSession } from '../account/session';
import { SignInAgain, useHearsEnd } from '../account/SignInAgain';
import { SignInForm } from '../account/SignInForm';
import { WaitsHere } from '../account/WaitsHere';
import { asProblem, read } from '../wire/api';
import { loadKeptCache } from '../store/keptCache';
import { useRefreshWhenSent } from '../data/useRefreshWhenSent';
import { useJobs, useRigs, useRuleSets, useUnits } from '../data/useRecords';
import { askBeyondYard } from '../screens/laterScreen';
import { ThemeRoot } from '../theme/ThemeRoot';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { Shell } from '../shell/Shell';

const swr = {
  fetcher: read,
  revalidateOnFocus: true,
  shouldRetryOnError: true,
  errorRetryInterval: 5_000,
  onError: (error: unknown) => {
    if (asProblem(error).code === 'not-signed-in') sessionEnded();
  },
};

export { ErrorBoundary } from '../shell/ErrorBoundary';

export default function RootLayout() {
  const [cache, setCache] = useState<Cache | null>(null);
  useEffect(() => {
    void loadKeptCache().then(setCache);
  }, []);
  // What was last read comes from the device within a few milliseconds; nothing is drawn without it.
  if (!cache) return null;
  return (
    <SWRConfig value={{ ...swr, provider: () => cache }}>
      <ThemeRoot>
        <Gate>
          <Shell>
            <Slot />
          </Shell>
        </Gate>
      </ThemeRoot>
    </SWRConfig>
  );
}

/** Reads what a run needs as soon as somebody is here, so that it is on the device when the network goes; and what became of what was sent. */
function AtHand() {
  useEffect(() => {
    // Without HTTPS there is no service worker to keep the other screens; where they fail to come, the screen that needs them says so.
    if (!window.isSecureContext) void askBeyondYard().catch(() => undefined);
  }, []);
  useUnits();
  useRigs();
  useRuleSets();
  // What a rig owes stands first where a run is started: come in late, it would push the button from under the thumb.
  useJobs();
  useRefreshWhenSent();
  useHearsEnd();
  return null;
}

/** Lets nobody past without a name. */
function Gate({ children }: { children: ReactNode }) {
  const session = useSession();
  const palette = usePalette();
  useEffect(() => {
    void findSession();
  }, []);
  switch (session.standing) {
    case 'asking':
      return (
        <View
          role="progressbar"
          aria-label="Loading"
          style={{ flex: 1, backgroundColor: palette.ground }}
        />
      );
    case 'set-up':
      return (
        <Doorstep
          title="Keen Bleed"
          lead="A new installation. Make the first lead’s account; it can add the others."
        >
          <FirstLeadForm needsCode={session.needsCode} onIn={(me) => void enter(me)} />
        </Doorstep>
      );
    case 'signed-out':
      return (
        <Doorstep title="Keen Bleed" lead="Air brakes, tested and remembered.">
          <SignInForm onIn={(me) => void enter(me)} />
          <WaitsHere />
        </Doorstep>
      );
    case 'unreachable':
      return (
        <Doorstep title="Keen Bleed" lead={session.message}>
          <Button title="Try again" manner="main" onPress={() => void findSession()} />
        </Doorstep>
      );
    case 'signed-in':
      return (
        <>
          <AtHand />
          {children}
          {session.stale ? <SignInAgain me={session.me} /> : null}
        </>
      );
  }
}
