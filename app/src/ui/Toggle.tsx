import { CheckBox } from '@rneui/themed/dist/CheckBox';
import { View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';
import { target } from '../theme/space';
import { typeScale } from '../theme/type';
import { usePalette } from '../theme/usePalette';

interface ToggleProps {
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
  /** What is spoken, where the label alone does not say of what. */
  spoken?: string;
}

/** Yes or no. */
export function Toggle({ label, value, onChange, spoken }: ToggleProps) {
  const palette = usePalette();
  const box = (checked: boolean) => (
    <Svg width={26} height={26} viewBox="0 0 26 26" aria-hidden>
      <Rect
        x={2}
        y={2}
        width={22}
        height={22}
        fill={checked ? palette.ink : 'none'}
        stroke={checked ? palette.ink : palette.edge}
        strokeWidth={2}
      />
      {checked ? (
        <Path d="M7 13.5l4.4 4.5L19.5 8.5" stroke={palette.ground} strokeWidth={3} fill="none" />
      ) : null}
    </Svg>
  );
  return (
    <View>
      <CheckBox
        checked={value}
        title={label}
        onPress={() => onChange(!value)}
        checkedIcon={box(true)}
        uncheckedIcon={box(false)}
        accessibilityRole="checkbox"
        accessibilityLabel={spoken ?? label}
        // The library leaves the state out.
        {...({ 'aria-checked': value } as object)}
        containerStyle={{
          backgroundColor: 'transparent',
          padding: 0,
          margin: 0,
          marginLeft: 0,
          marginRight: 0,
          minHeight: target.finger,
          justifyContent: 'center',
        }}
        textStyle={{ ...typeScale.body, color: palette.ink, marginLeft: 8 }}
      />
    </View>
  );
}
