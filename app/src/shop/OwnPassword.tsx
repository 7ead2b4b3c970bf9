import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Txt } from '../ui/Txt';
import { ask, asProblem } from '../wire/api';

/** One's own password: the old one is asked, and every other device is signed out. */
export function OwnPassword() {
  const [open, setOpen] = useState(false);
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const [wrong, setWrong] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState(false);
  const change = async () => {
    setBusy(true);
    setWrong({});
    try {
      await ask('POST', '/api/v1/me/password', { old, password });
      setOld('');
      setPassword('');
      setOpen(false);
      setDone(true);
    } catch (error) {
      const { message, fields } = asProblem(error);
      setWrong(
        fields.length > 0
          ? Object.fromEntries(fields.map((each) => [each.field, each.message]))
          : { password: message },
      );
    } finally {
      setBusy(false);
    }
  };
  if (!open) {
    return (
      <View style={{ gap: space.hair, alignItems: 'flex-start' }}>
        <Button title="Change my password" onPress={() => setOpen(true)} />
        {done ? (
          <Txt as="small" live="polite">
            Changed. Every other device was signed out.
          </Txt>
        ) : null}
      </View>
    );
  }
  return (
    <View style={{ gap: space.step }}>
      <Field
        label="Old password"
        value={old}
        onChange={setOld}
        secret
        autoComplete="current-password"
        problem={wrong.old}
      />
      <Field
        label="New password"
        hint="four words that do not belong together"
        value={password}
        onChange={setPassword}
        secret
        autoComplete="new-password"
        problem={wrong.password}
        onSubmit={() => void change()}
      />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" onPress={() => setOpen(false)} />
        <Button title="Change it" manner="main" busy={busy} onPress={() => void change()} />
      </View>
    </View>
  );
}
