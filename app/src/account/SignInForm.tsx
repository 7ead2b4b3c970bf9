import type { Me } from '@keen-bleed/contract';
import { checkForm } from '@keen-bleed/contract/forms';
import { useState } from 'react';
import { View } from 'react-native';
import { ask, asProblem } from '../wire/api';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';

/** Name and password; hands over who came in. */
export function SignInForm({ name = '', onIn }: { name?: string; onIn: (me: Me) => void }) {
  const [signInName, setSignInName] = useState(name);
  const [password, setPassword] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const submit = async () => {
    const body = { signInName: signInName.trim(), password };
    const wrong = checkForm('signIn', body)[0];
    if (wrong) {
      setTrouble(wrong.message);
      return;
    }
    setBusy(true);
    setTrouble(null);
    try {
      onIn(await ask<Me>('POST', '/api/sign-in', body));
    } catch (error) {
      setTrouble(asProblem(error).message);
    } finally {
      setBusy(false);
    }
  };

  return (
    <View style={{ gap: space.gap }}>
      <Field
        label="Sign-in name"
        value={signInName}
        onChange={setSignInName}
        autoComplete="username"
        onSubmit={() => void submit()}
      />
      <Field
        label="Password"
        value={password}
        onChange={setPassword}
        secret
        autoComplete="current-password"
        onSubmit={() => void submit()}
      />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <Button
        title="Sign in"
        manner="main"
        size="glove"
        busy={busy}
        onPress={() => void submit()}
      />
    </View>
  );
}
