import { createElement } from 'react';
import { View } from 'react-native';
import { target } from '../theme/space';
import { TEXT_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

interface PickProps<T extends string> {
  label: string;
  options: readonly T[];
  value: T;
  onChange: (value: T) => void;
  /** The label is only spoken: what stands beside it says the same. */
  silent?: boolean;
}

/** One of many, by the device's own list, which suits a glove better than any drawn one. */
export function Pick<T extends string>({
  label,
  options,
  value,
  onChange,
  silent = false,
}: PickProps<T>) {
  const palette = usePalette();
  return (
    <View style={{ gap: 4, flexGrow: 1, flexBasis: 100, minWidth: 0 }}>
      {silent ? null : <Txt as="smallBold">{label}</Txt>}
      {createElement(
        'select',
        {
          'aria-label': label,
          value,
          onChange: (event: { target: { value: string } }) => onChange(event.target.value as T),
          style: {
            minHeight: target.finger,
            padding: '0 10px',
            fontFamily: TEXT_FACE,
            fontSize: 17,
            color: palette.ink,
            background: palette.raised,
            border: `1.5px solid ${palette.edge}`,
            borderRadius: 2,
          },
        },
        options.map((option) => createElement('option', { key: option, value: option }, option)),
      )}
    </View>
  );
}
