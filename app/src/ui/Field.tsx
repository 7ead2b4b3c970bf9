import { Input } from '@rneui/themed/dist/Input';
import { useId } from 'react';
import { View, type KeyboardTypeOptions } from 'react-native';
import { target } from '../theme/space';
import { NUMERAL_FACE, typeScale } from '../theme/type';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

interface FieldProps {
  label: string;
  value: string;
  onChange: (text: string) => void;
  onBlur?: () => void;
  /** What is wrong and what would be right. */
  problem?: string | undefined;
  /** Unit or a short hint after the label. */
  hint?: string;
  numeric?: boolean;
  /** Its label is only spoken: it stands in a row whose heads say what it is. */
  isInRow?: boolean;
  secret?: boolean;
  autoComplete?:
    'username' | 'current-password' | 'new-password' | 'one-time-code' | 'off' | 'name';
  lines?: number;
  testID?: string;
  onSubmit?: () => void;
}

/** One line to fill in, tied to its label and to what is wrong with it. */
export function Field({
  label,
  value,
  onChange,
  onBlur,
  problem,
  hint,
  numeric = false,
  isInRow = false,
  secret = false,
  autoComplete = 'off',
  lines = 1,
  testID,
  onSubmit,
}: FieldProps) {
  const palette = usePalette();
  const id = useId();
  const keyboard: KeyboardTypeOptions = numeric ? 'decimal-pad' : 'default';
  return (
    <View style={{ flexShrink: 1, gap: 4 }}>
      {isInRow ? null : (
        <Txt as="smallBold">
          {label}
          {hint ? <Txt as="small" tone="quiet">{`  ${hint}`}</Txt> : null}
        </Txt>
      )}
      <Input
        value={value}
        onChangeText={onChange}
        onBlur={onBlur}
        onSubmitEditing={onSubmit}
        secureTextEntry={secret}
        autoComplete={autoComplete}
        autoCapitalize={
          secret || autoComplete === 'username' || autoComplete === 'one-time-code'
            ? 'none'
            : 'sentences'
        }
        autoCorrect={false}
        keyboardType={keyboard}
        multiline={lines > 1}
        numberOfLines={lines}
        // The library does not tie its label to its box; the label stands above and names it here.
        aria-label={hint ? `${label}, ${hint}` : label}
        {...({
          'aria-invalid': problem !== undefined,
          'aria-describedby': problem ? id : undefined,
        } as object)}
        {...(testID ? { testID } : {})}
        renderErrorMessage={false}
        containerStyle={{ paddingHorizontal: 0 }}
        inputContainerStyle={{
          borderBottomWidth: 1.5,
          borderWidth: 1.5,
          borderColor: problem ? palette.fail : palette.edge,
          borderRadius: 2,
          backgroundColor: palette.raised,
          minHeight: target.finger,
          paddingHorizontal: 10,
        }}
        inputStyle={[
          typeScale.body,
          { color: palette.ink, minHeight: target.finger - 4, minWidth: 0 },
          numeric ? { fontFamily: NUMERAL_FACE, fontVariant: ['tabular-nums'] } : null,
        ]}
      />
      {problem ? (
        <View id={id}>
          <Txt as="small" tone="fail" live="polite">
            {problem}
          </Txt>
        </View>
      ) : null}
    </View>
  );
}
