import type { ErrorBoundaryProps } from 'expo-router';
import { View } from 'react-native';
import { space } from '../theme/space';
import { ThemeRoot } from '../theme/ThemeRoot';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { reloadPage } from './reloadPage';

/** What is shown where a screen broke, or a part of it is gone from the server since an upgrade. */
export function ErrorBoundary({ error, retry }: ErrorBoundaryProps) {
  return (
    <ThemeRoot>
      <Broken message={error.message} onRetry={() => void retry()} />
    </ThemeRoot>
  );
}

/** A part of the application that could not be fetched: another version stands on the server by now. */
const IS_OLD = /chunk|module|load|fetch|import/i;

function Broken({ message, onRetry }: { message: string; onRetry: () => void }) {
  const palette = usePalette();
  const isOld = IS_OLD.test(message);
  return (
    <View
      role="main"
      style={{
        flex: 1,
        justifyContent: 'center',
        padding: space.gap,
        backgroundColor: palette.ground,
      }}
    >
      <View style={{ maxWidth: 520, gap: space.gap }}>
        <Txt as="screenTitle" heading={1}>
          {isOld ? 'This page is older than the server' : 'This screen broke'}
        </Txt>
        <Txt>Every mark you made is kept on this device. Reload, and go on where you were.</Txt>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>
          <Button title="Reload" manner="main" size="glove" onPress={() => void reloadPage()} />
          <Button title="Try again" size="glove" onPress={onRetry} />
        </View>
      </View>
    </View>
  );
}
