import { Controller, type Control, type FieldPath } from 'react-hook-form';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Field } from '../ui/Field';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import type { UnitForm } from './unitForm';

/** The kinds of box a unit's form is made of, tied to the form and to what is wrong in it. */
export function formBoxes(control: Control<UnitForm>, problems: Readonly<Record<string, string>>) {
  const text = (name: FieldPath<UnitForm>, label: string, hint?: string, numeric = true) => (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <View style={{ flexGrow: 1, flexBasis: 110, minWidth: 0 }}>
          <Field
            label={label}
            {...(hint ? { hint } : {})}
            numeric={numeric}
            value={typeof field.value === 'string' ? field.value : ''}
            onChange={field.onChange}
            onBlur={field.onBlur}
            problem={problems[name]}
            testID={name}
          />
        </View>
      )}
    />
  );
  const segments = <T extends string>(
    name: FieldPath<UnitForm>,
    label: string,
    options: readonly { value: T; title: string }[],
    after?: (value: T) => void,
  ) => (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <View style={{ gap: space.hair, flexGrow: 1 }}>
          <Txt as="smallBold">{label}</Txt>
          <Segments
            label={label}
            options={options}
            value={field.value as T}
            onChange={(value) => {
              field.onChange(value);
              after?.(value);
            }}
          />
        </View>
      )}
    />
  );
  return { text, segments };
}
