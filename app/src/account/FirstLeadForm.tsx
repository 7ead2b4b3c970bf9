import type { Me } from '@keen-bleed/contract';
import { checkDoorForm } from '@keen-bleed/contract/door';
import { useState } from 'react';
import { View } from 'react-native';
import { ask, asProblem } from '../wire/api';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { PlainHttp } from '../ui/PlainHttp';

const empty = { shopName: '', name: '', signInName: '', password: '' };
const withCode = { ...empty, code: '' };

/** The first account of a new installation. */
export function FirstLeadForm({
  needsCode,
  onIn,
}: {
  /** Whether the code that was printed at the server's start is asked for. */
  needsCode: boolean;
  onIn: (me: Me) => void;
}) {
  const [values, setValues] = useState<typeof empty & { code?: string }>(
    needsCode ? withCode : empty,
  );
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const set = (key: keyof typeof withCode) => (text: string) =>
    setValues((before) => ({ ...before, [key]: text }));

  const submit = async () => {
    const wrong = checkDoorForm('firstLead', values);
    setProblems(Object.fromEntries(wrong.map((each) => [each.field, each.message])));
    setTrouble(null);
    if (wrong.length > 0) return;
    setBusy(true);
    try {
      onIn(
        await ask('POST', '/api/v1/set-up', {
          ...values,
          timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        }),
      );
    } catch (error) {
      const { fields, message } = asProblem(error);
      setProblems(Object.fromEntries(fields.map((each) => [each.field, each.message])));
      if (fields.length === 0) setTrouble(message);
    } finally {
      setBusy(false);
    }
  };

  return (
    <View style={{ gap: space.gap }}>
      {needsCode ? (
        <Field
          label="Set-up code"
          hint="printed where the server was started"
          value={values.code ?? ''}
          onChange={set('code')}
          problem={problems.code}
          autoComplete="one-time-code"
        />
      ) : null}
      <Field
        label="Shop name"
        value={values.shopName}
        onChange={set('shopName')}
        problem={problems.shopName}
      />
      <Field
        label="Your name"
        value={values.name}
        onChange={set('name')}
        problem={problems.name}
        autoComplete="name"
      />
      <Field
        label="Sign-in name"
        value={values.signInName}
        onChange={set('signInName')}
        problem={problems.signInName}
        autoComplete="username"
      />
      <Field
        label="Password"
        hint="10 characters or more"
        value={values.password}
        onChange={set('password')}
        problem={problems.password}
        secret
        autoComplete="new-password"
      />
      <PlainHttp />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <Button
        title="Make the first account"
        manner="main"
        size="glove"
        busy={busy}
        onPress={() => void submit()}
      />
    </View>
  );
}
