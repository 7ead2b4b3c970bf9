import type { EditPerson, Person, Role } from '@keen-bleed/contract';
import { roles } from '@keen-bleed/contract/forms';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { ask, asProblem } from '../wire/api';
import { usePeople } from '../data/useRecords';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { NewPersonForm } from './NewPersonForm';

/** The people of the shop; a lead can change what they may do. */
export function PeopleList() {
  const me = useMe();
  const { data, error, mutate } = usePeople();
  const [adding, setAdding] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const isLead = me.role === 'lead';
  const change = async (person: Person, edit: EditPerson) => {
    try {
      await ask('PATCH', `/api/v1/people/${person.id}`, edit);
      setTrouble(null);
    } catch (thrown) {
      setTrouble(asProblem(thrown).message);
    }
    await mutate();
  };
  return (
    <View style={{ gap: space.step }}>
      <Txt as="heading" heading={2}>
        People
      </Txt>
      {error && !data ? (
        <Notice manner="trouble" title="The people cannot be shown" text={error.message} />
      ) : null}
      {!data && !error ? <Waiting rows={3} /> : null}
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View role="list" aria-label="People">
        {data?.map((person) => (
          <View key={person.id} role="listitem">
            <Rule />
            <View
              style={{
                flexDirection: 'row',
                flexWrap: 'wrap',
                alignItems: 'center',
                gap: space.step,
                paddingVertical: space.near,
              }}
            >
              <View style={{ flexGrow: 1, flexBasis: 160 }}>
                <Txt as="bodyBold">{person.name}</Txt>
                <Txt as="small" tone="quiet">
                  {[
                    person.signInName,
                    ...(person.secondFactor ? ['codes on'] : []),
                    ...(person.active ? [] : ['may not sign in']),
                  ].join(', ')}
                </Txt>
              </View>
              {isLead && person.id !== me.personId ? (
                <>
                  <Pick<Role>
                    silent
                    label={`Role of ${person.name}`}
                    options={roles}
                    value={person.role}
                    onChange={(role) => void change(person, { role })}
                  />
                  <Button
                    title={person.active ? 'Deactivate' : 'Activate'}
                    label={`${person.active ? 'Deactivate' : 'Activate'} ${person.name}`}
                    onPress={() => void change(person, { active: !person.active })}
                    style={{ alignSelf: 'flex-end' }}
                  />
                  {person.secondFactor ? (
                    <Button
                      title="Turn codes off"
                      label={`Turn codes off for ${person.name}, who lost what makes them`}
                      onPress={() => void change(person, { secondFactor: false })}
                      style={{ alignSelf: 'flex-end' }}
                    />
                  ) : null}
                </>
              ) : (
                <Txt>{person.role}</Txt>
              )}
            </View>
          </View>
        ))}
        <Rule />
      </View>
      {isLead && !adding ? (
        <Button
          title="Add a person"
          onPress={() => setAdding(true)}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {isLead && adding ? (
        <NewPersonForm
          onLeave={() => setAdding(false)}
          onMade={() => {
            setAdding(false);
            void mutate();
          }}
        />
      ) : null}
    </View>
  );
}
