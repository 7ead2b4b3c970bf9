import type { Me } from '@keen-bleed/contract';
import { checkDoorForm } from '@keen-bleed/contract/door';
import { useState } from 'react';
import { View } from 'react-native';
import { ask, asProblem } from '../wire/api';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';

/** Name and password, and a code or the shop's name where the server asks for them; hands over who came in. */
export function SignInForm({ name = '', onIn }: { name?: string; onIn: (me: Me) => void }) {
  const [signInName, setSignInName] = useState(name);
  const [password, setPassword] = useState('');
  const [code, setCode] = useState<string | null>(null);
  const [shop, setShop] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const submit = async () => {
    const body = {
      signInName: signInName.trim(),
      password,
      ...(code?.trim() ? { code: code.trim() } : {}),
      ...(shop?.trim() ? { shop: shop.trim() } : {}),
    };
    const wrong = checkDoorForm('signIn', body)[0];
    if (wrong) {
      setTrouble(wrong.message);
      return;
    }
    setBusy(true);
    setTrouble(null);
    try {
      onIn(await ask('POST', '/api/v1/sign-in', body));
    } catch (error) {
      const problem = asProblem(error);
      if (problem.code === 'code-wanted') setCode((before) => before ?? '');
      if (problem.code === 'which-shop') setShop((before) => before ?? '');
      setTrouble(problem.message);
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
      {shop === null ? null : (
        <Field label="Shop" value={shop} onChange={setShop} onSubmit={() => void submit()} />
      )}
      {code === null ? null : (
        <Field
          label="Code"
          hint="six digits from your app, or a spare code"
          value={code}
          onChange={setCode}
          autoComplete="one-time-code"
          onSubmit={() => void submit()}
        />
      )}
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
