import { Pressable, View } from 'react-native';
import { target } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

interface ChipsProps<T extends string> {
  /** What is chosen, for assistive technology. */
  label: string;
  options: readonly { value: T; title: string }[];
  chosen: readonly T[];
  onChange: (chosen: T[]) => void;
}

/** Any of a few, all in sight: each by itself is on or off. */
export function Chips<T extends string>({ label, options, chosen, onChange }: ChipsProps<T>) {
  const palette = usePalette();
  return (
    <View
      role="group"
      aria-label={label}
      style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 2 }}
    >
      {options.map(({ value, title }) => {
        const isOn = chosen.includes(value);
        return (
          <Pressable
            key={value}
            role="checkbox"
            aria-checked={isOn}
            aria-label={title}
            onPress={() =>
              onChange(isOn ? chosen.filter((each) => each !== value) : [...chosen, value])
            }
            style={{
              minHeight: target.finger,
              minWidth: target.finger,
              flexGrow: 1,
              paddingHorizontal: 8,
              alignItems: 'center',
              justifyContent: 'center',
              backgroundColor: isOn ? palette.ink : palette.raised,
            }}
          >
            <Txt as={isOn ? 'smallBold' : 'small'} tone={isOn ? 'ground' : 'ink'}>
              {title}
            </Txt>
          </Pressable>
        );
      })}
    </View>
  );
}
