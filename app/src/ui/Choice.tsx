import { View } from 'react-native';
import { space } from '../theme/space';
import { Segments } from './Segments';
import { Txt } from './Txt';

interface ChoiceProps<T extends string> {
  label: string;
  /** What the choice rests on, under it. */
  note?: string;
  options: readonly { value: T; title: string }[];
  value: T;
  onChange: (value: T) => void;
  size?: 'finger' | 'glove';
}

/** One of a few under its label. */
export function Choice<T extends string>({ label, note, ...segments }: ChoiceProps<T>) {
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="smallBold">{label}</Txt>
      <Segments label={label} {...segments} />
      {note ? (
        <Txt as="small" tone="quiet">
          {note}
        </Txt>
      ) : null}
    </View>
  );
}
