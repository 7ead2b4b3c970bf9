import { rigTitle, type RigUnderTest } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Txt } from '../ui/Txt';

/** Rigs in the list at a time: more are found by writing a letter or two. */
const SHOWN = 8;

interface RigFinderProps {
  rigs: readonly RigUnderTest[];
  chosen: string;
  onChoose: (title: string) => void;
}

/** One of the yard's rigs, by a letter or two of it where there are many. */
export function RigFinder({ rigs, chosen, onChoose }: RigFinderProps) {
  const [text, setText] = useState('');
  const all = rigs.map(rigTitle);
  const matching = (words: string) =>
    all.filter((title) => title.toLowerCase().includes(words.trim().toLowerCase()));
  const found = matching(text);
  const shown = [...new Set([...(found.includes(chosen) ? [chosen] : []), ...found])].slice(
    0,
    SHOWN,
  );
  const find = (words: string) => {
    setText(words);
    const [first] = matching(words);
    if (first && !matching(words).includes(chosen)) onChoose(first);
  };
  return (
    <View style={{ gap: space.near }}>
      {all.length > SHOWN ? (
        <Field label="Find a rig" hint="number or name" value={text} onChange={find} />
      ) : null}
      {shown.length > 0 ? (
        <View style={{ flexDirection: 'row' }}>
          <Pick label="Rig" options={shown} value={chosen} onChange={onChoose} />
        </View>
      ) : (
        <Txt tone="quiet">No rig of the yard is called so.</Txt>
      )}
      {found.length > SHOWN ? (
        <Txt
          as="small"
          tone="quiet"
        >{`${found.length - SHOWN} more: write a letter or two of the one you want.`}</Txt>
      ) : null}
    </View>
  );
}
