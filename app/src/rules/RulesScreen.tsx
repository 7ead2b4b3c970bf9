import type { RuleSet } from '@keen-bleed/contract';
import { hasOldStop } from '@keen-bleed/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuidv7 } from 'uuid';
import { useMe } from '../account/session';
import { ask, asProblem } from '../wire/api';
import { useRuleSets } from '../data/useRecords';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { draftOfRuleSet } from './ruleSetDraft';

/** The rule sets the shop may run by. A lead copies one and changes the copy; those that ship stay as they are. */
export function RulesScreen() {
  const me = useMe();
  const rules = useRuleSets();
  const [trouble, setTrouble] = useState<string | null>(null);
  const list = rules.data;
  const isLead = me.role === 'lead';
  const copy = async (set: RuleSet) => {
    try {
      const id = uuidv7();
      const draft = { ...draftOfRuleSet(set), title: `${set.title}, ours`.slice(0, 60) };
      await ask('POST', '/api/v1/rule-sets', { id, basedOn: set.id, draft });
      await rules.mutate();
      router.push(`/rules/${id}`);
    } catch (error) {
      setTrouble(asProblem(error).message);
    }
  };
  const choose = async (set: RuleSet) => {
    try {
      await rules.mutate(await ask('PUT', '/api/v1/rule-sets/default', { ruleSetId: set.id }), {
        revalidate: false,
      });
    } catch (error) {
      setTrouble(asProblem(error).message);
    }
  };
  return (
    <Screen
      title="Rule sets"
      lead="What is asked in a run, in which order, and what is allowed."
      width={760}
    >
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View role="list" aria-label="Rule sets" style={{ marginTop: space.step }}>
        {list?.sets.map((set) => {
          const isDefault = set.id === list.defaultId;
          const must = set.steps.filter((step) => step.need === 'must').length;
          return (
            <View key={set.id} role="listitem">
              <Rule heavy={isDefault} />
              <View style={{ paddingVertical: space.step, gap: space.hair }}>
                <LinkTo to={`/rules/${set.id}`}>
                  <Txt as="heading">{set.title}</Txt>
                  <Txt tone="quiet">
                    {`${set.basedOn ? `the shop’s own, revision ${set.revision}` : 'ships with the app'} · ${must} steps must be done · ${set.limits.length} limits`}
                  </Txt>
                </LinkTo>
                <View
                  style={{
                    flexDirection: 'row',
                    flexWrap: 'wrap',
                    gap: space.step,
                    alignItems: 'center',
                  }}
                >
                  {hasOldStop(set) ? <Txt as="smallBold">Old stop test</Txt> : null}
                  {isDefault ? <Txt as="smallBold">The shop’s usual one</Txt> : null}
                  {isLead && !isDefault ? (
                    <Button
                      title="Make it the usual one"
                      label={`Make ${set.title} the usual one`}
                      onPress={() => void choose(set)}
                    />
                  ) : null}
                  {isLead ? (
                    <Button
                      title="Copy and change"
                      label={`Copy ${set.title}`}
                      onPress={() => void copy(set)}
                    />
                  ) : null}
                </View>
              </View>
            </View>
          );
        })}
        <Rule />
      </View>
    </Screen>
  );
}
