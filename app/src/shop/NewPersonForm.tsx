import type { Role } from '@keen-bleed/contract';
import { checkForm, roles } from '@keen-bleed/contract/forms';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuidv7 } from 'uuid';
import { sessionEnded } from '../account/session';
import { ask, asProblem } from '../wire/api';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';

/** Adds a person to the shop. */
export function NewPersonForm({ onMade, onLeave }: { onMade: () => void; onLeave: () => void }) {
  const [id] = useState(() => uuidv7());
  const [values, setValues] = useState({
    name: '',
    signInName: '',
    password: '',
    role: 'technician' as Role,
  });
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  const set = (key: keyof typeof values) => (text: string) =>
    setValues((before) => ({ ...before, [key]: text }));
  const submit = async () => {
    const person = { id, ...values };
    const wrong = checkForm('createPerson', person);
    setProblems(Object.fromEntries(wrong.map((each) => [each.field, each.message])));
    if (wrong.length > 0) return;
    try {
      await ask('POST', '/api/v1/people', person);
      onMade();
    } catch (error) {
      const problem = asProblem(error);
      if (problem.code === 'not-signed-in') sessionEnded();
      setProblems(Object.fromEntries(problem.fields.map((each) => [each.field, each.message])));
      setTrouble(problem.message);
    }
  };
  return (
    <View style={{ gap: space.gap }}>
      <Field label="Name" value={values.name} onChange={set('name')} problem={problems.name} />
      <Field
        label="Sign-in name"
        value={values.signInName}
        onChange={set('signInName')}
        problem={problems.signInName}
      />
      <Field
        label="First password"
        hint="10 characters or more"
        value={values.password}
        onChange={set('password')}
        problem={problems.password}
        secret
        autoComplete="new-password"
      />
      <View style={{ gap: space.hair }}>
        <Txt as="smallBold">Role</Txt>
        <Segments<Role>
          label="Role"
          options={roles.map((role) => ({ value: role, title: role }))}
          value={values.role}
          onChange={(role) => setValues((before) => ({ ...before, role }))}
        />
      </View>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" onPress={onLeave} />
        <Button title="Add" manner="main" onPress={() => void submit()} style={{ flexGrow: 1 }} />
      </View>
    </View>
  );
}
