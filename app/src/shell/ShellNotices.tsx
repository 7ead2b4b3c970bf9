import { useState } from 'react';
import { View } from 'react-native';
import { ClockNotice } from '../clock/ClockNotice';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { reloadPage } from './reloadPage';
import { mayTakeOver, useNewVersion } from './useNewVersion';

/** What the application has to say of itself above every screen. */
export function ShellNotices() {
  return (
    <>
      <ClockNotice />
      <NewVersion />
    </>
  );
}

/** Offers a newer version that lies ready. */
function NewVersion() {
  const isReady = useNewVersion();
  const palette = usePalette();
  const [isBusy, setBusy] = useState(false);
  const [later, setLater] = useState(false);
  if (!isReady) return null;
  const take = async () => {
    setBusy(true);
    if (await mayTakeOver()) await reloadPage();
    else {
      setBusy(false);
      setLater(true);
    }
  };
  return (
    <View
      role="status"
      style={{
        flexDirection: 'row',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: space.step,
        paddingHorizontal: space.gap,
        paddingVertical: space.near,
        borderBottomWidth: 2,
        borderBottomColor: palette.accent,
      }}
    >
      <Txt as="small" style={{ flexShrink: 1 }}>
        {later
          ? 'Something is being recorded on this device: finish it first, then take the newer version.'
          : 'A newer version is ready.'}
      </Txt>
      <Button title="Take it" busy={isBusy} onPress={() => void take()} />
    </View>
  );
}
