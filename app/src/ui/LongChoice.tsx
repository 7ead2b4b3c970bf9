import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Field } from './Field';
import { Segments } from './Segments';
import { Txt } from './Txt';

/** Rows in sight at once; the rest is found by a word. */
const SHOWN = 8;

interface LongChoiceProps {
  label: string;
  /** Such as what the options are called by. */
  hint: string;
  options: readonly { value: string; title: string }[];
  value: string;
  onChange: (value: string) => void;
}

/** One of many: the first, which is usually right, stands by itself; the others are found by any word of theirs. */
export function LongChoice({ label, hint, options, value, onChange }: LongChoiceProps) {
  const [words, setWords] = useState('');
  const [usual, ...others] = options;
  const wanted = words.trim().toLowerCase().split(/\s+/);
  const found = others.filter(({ title }) =>
    wanted.every((word) => title.toLowerCase().includes(word)),
  );
  // What is chosen stays in sight whatever is looked for next.
  const chosen = others.find((option) => option.value === value);
  const shown = found.slice(0, SHOWN);
  const inSight = chosen && !shown.includes(chosen) ? [chosen, ...shown] : shown;
  return (
    <View style={{ gap: space.near }}>
      <Txt as="smallBold">{label}</Txt>
      {usual ? (
        <Segments label={label} options={[usual]} value={value} onChange={onChange} size="glove" />
      ) : null}
      <Field label="Or where: find by a word" hint={hint} value={words} onChange={setWords} />
      {inSight.length > 0 ? (
        <Segments label={`${label} Places`} options={inSight} value={value} onChange={onChange} />
      ) : (
        <Txt>No place here goes by that word. Try another.</Txt>
      )}
      {found.length > SHOWN ? (
        <Txt as="small" tone="quiet">{`${found.length - SHOWN} more: type a word.`}</Txt>
      ) : null}
    </View>
  );
}
