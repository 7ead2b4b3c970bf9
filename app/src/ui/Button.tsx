import { Button as RneButton } from '@rneui/themed/dist/Button';
import type { StyleProp, ViewStyle } from 'react-native';
import { target } from '../theme/space';
import { typeScale } from '../theme/type';
import { usePalette } from '../theme/usePalette';

interface ButtonProps {
  title: string;
  onPress: () => void;
  /** `main` is the one thing to do here; `plain` stands beside it; `danger` cannot be taken back. */
  manner?: 'main' | 'plain' | 'danger' | 'quiet';
  disabled?: boolean;
  busy?: boolean;
  /** What it does, where the title alone does not say. */
  label?: string;
  size?: 'finger' | 'glove';
  style?: StyleProp<ViewStyle>;
  testID?: string;
}

/** A thing to press. */
export function Button({
  title,
  onPress,
  manner = 'plain',
  disabled = false,
  busy = false,
  label,
  size = 'finger',
  style,
  testID,
}: ButtonProps) {
  const palette = usePalette();
  const look = {
    main: {
      back: palette.accent,
      edge: palette.accent,
      text: palette.onAccent,
    },
    plain: { back: 'transparent', edge: palette.edge, text: palette.ink },
    danger: { back: 'transparent', edge: palette.fail, text: palette.fail },
    quiet: { back: 'transparent', edge: 'transparent', text: palette.ink },
  }[manner];
  return (
    <RneButton
      title={busy ? `${title}…` : title}
      onPress={onPress}
      disabled={disabled || busy}
      accessibilityLabel={label ?? title}
      accessibilityRole="button"
      accessibilityState={{ disabled: disabled || busy, busy }}
      {...(testID ? { testID } : {})}
      radius={2}
      containerStyle={[{ overflow: 'visible' }, style]}
      buttonStyle={{
        minHeight: target[size],
        paddingHorizontal: manner === 'quiet' ? 8 : 18,
        backgroundColor: look.back,
        borderColor: look.edge,
        borderWidth: 1.5,
      }}
      disabledStyle={{
        backgroundColor: 'transparent',
        borderColor: manner === 'quiet' ? 'transparent' : palette.rule,
      }}
      titleStyle={[typeScale.bodyBold, { color: look.text }]}
      disabledTitleStyle={{ color: palette.quiet }}
    />
  );
}
