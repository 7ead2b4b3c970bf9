import type { RuleSetDraft, ShopLook } from '@keen-bleed/contract';
import { usualLooks } from '@keen-bleed/core';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { withLooks } from './ruleSetDraft';

interface LookTableProps {
  draft: RuleSetDraft;
  mayEdit: boolean;
  onChange: (draft: RuleSetDraft) => void;
}

/** Looks a list takes, as its schema has it. */
const MOST = 60;

/** What the shop looks at on the same round: picked from the usual ones, or in its own words. */
export function LookTable({ draft, mayEdit, onChange }: LookTableProps) {
  const looks = draft.looks ?? [];
  if (looks.length === 0 && !mayEdit) return null;
  const change = (next: readonly ShopLook[]) => onChange(withLooks(draft, next));
  const left = usualLooks.filter(({ key }) => !looks.some((each) => each.key === key));
  const edit = (at: number, part: Partial<ShopLook>) =>
    change(looks.map((each, index) => (index === at ? { ...each, ...part } : each)));
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        The shop’s own list
      </Txt>
      <Txt as="small" tone="quiet">
        Looked at on the same round, beside the brakes. One that is not right stays an open failure
        like any other.
      </Txt>
      <View role="list" aria-label="The shop’s own list">
        {looks.map((look, at) => (
          <View key={look.key} role="listitem">
            <Rule />
            {mayEdit ? (
              <View
                style={{
                  flexDirection: 'row',
                  flexWrap: 'wrap',
                  alignItems: 'flex-end',
                  gap: space.near,
                  paddingVertical: space.near,
                }}
              >
                <View style={{ flexGrow: 1, flexBasis: 240 }}>
                  <Field label="Look at" value={look.ask} onChange={(ask) => edit(at, { ask })} />
                </View>
                <View style={{ flexGrow: 1, flexBasis: 240 }}>
                  <Field
                    label="Usual"
                    value={look.usual ?? ''}
                    onChange={(usual) => edit(at, { usual })}
                  />
                </View>
                <Button
                  manner="quiet"
                  title="Remove"
                  label={`Remove ${look.ask}`}
                  onPress={() => change(looks.filter((_, index) => index !== at))}
                />
              </View>
            ) : (
              <Txt style={{ paddingVertical: space.near }}>
                {look.usual ? `${look.ask}: ${look.usual}` : look.ask}
              </Txt>
            )}
          </View>
        ))}
        <Rule />
      </View>
      {mayEdit && looks.length < MOST ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
          {left.map((look) => (
            <Button
              key={look.key}
              title={`+ ${look.ask}`}
              label={`Add ${look.ask}`}
              onPress={() => change([...looks, look])}
            />
          ))}
          <Button
            title="+ Something else"
            onPress={() => change([...looks, { key: freeKey(looks), ask: '' }])}
          />
        </View>
      ) : null}
    </View>
  );
}

/** A key that no look of the list has. */
function freeKey(looks: readonly ShopLook[]): string {
  let n = looks.length + 1;
  while (looks.some(({ key }) => key === `own-${n}`)) n += 1;
  return `own-${n}`;
}
