import type { FactorOffer } from '@keen-bleed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { shopChanged, useMe } from '../account/session';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Txt } from '../ui/Txt';
import { ask, asProblem } from '../wire/api';
import { QrCode } from './QrCode';

/** How far somebody has come in turning codes on or off. */
type At =
  | { step: 'rest' }
  | { step: 'password'; for: 'on' | 'off' }
  | { step: 'confirm'; offer: FactorOffer }
  | { step: 'spare'; spare: readonly string[] };

/** A code from an app, asked for at one's sign-in beside the password. */
export function SecondFactor() {
  const me = useMe();
  const [at, setAt] = useState<At>({ step: 'rest' });
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | undefined>();
  const [busy, setBusy] = useState(false);
  const go = (next: At) => {
    setText('');
    setProblem(undefined);
    setAt(next);
  };
  const doing = async (work: () => Promise<void>) => {
    setBusy(true);
    setProblem(undefined);
    try {
      await work();
    } catch (error) {
      const { fields, message } = asProblem(error);
      setProblem(fields[0]?.message ?? message);
    } finally {
      setBusy(false);
    }
  };
  const withPassword = (wanted: 'on' | 'off') =>
    doing(async () => {
      if (wanted === 'on') {
        const offer = await ask('POST', '/api/v1/me/second-factor', { password: text });
        go({ step: 'confirm', offer });
      } else {
        await ask('POST', '/api/v1/me/second-factor/off', { password: text });
        await shopChanged({ ...me, secondFactor: false });
        go({ step: 'rest' });
      }
    });
  const confirm = () =>
    doing(async () => {
      const { spare } = await ask('POST', '/api/v1/me/second-factor/confirm', {
        code: text.trim(),
      });
      await shopChanged({ ...me, secondFactor: true });
      go({ step: 'spare', spare });
    });
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        Codes at sign-in
      </Txt>
      {at.step === 'rest' ? (
        <>
          <Txt as="small" tone="quiet">
            {me.secondFactor
              ? 'On: your sign-in asks for a code from your app.'
              : me.role === 'lead'
                ? 'Off. A lead’s account opens the whole shop: with codes from an app on your phone, your password alone opens nothing.'
                : 'Off. A code from an app on your phone, beside your password.'}
          </Txt>
          <Button
            title={me.secondFactor ? 'Turn codes off' : 'Turn codes on'}
            style={{ alignSelf: 'flex-start' }}
            onPress={() => go({ step: 'password', for: me.secondFactor ? 'off' : 'on' })}
          />
        </>
      ) : null}
      {at.step === 'password' ? (
        <>
          <Field
            label="Your password"
            value={text}
            onChange={setText}
            secret
            autoComplete="current-password"
            problem={problem}
            onSubmit={() => void withPassword(at.for)}
          />
          <View style={{ flexDirection: 'row', gap: space.step }}>
            <Button title="Back" onPress={() => go({ step: 'rest' })} />
            <Button
              title={at.for === 'on' ? 'Go on' : 'Turn codes off'}
              manner="main"
              busy={busy}
              onPress={() => void withPassword(at.for)}
            />
          </View>
        </>
      ) : null}
      {at.step === 'confirm' ? (
        <>
          <Txt>Take this picture with an app that makes sign-in codes, or type the letters in.</Txt>
          <QrCode rows={at.offer.rows} label="QR code for your app" />
          <Txt as="numberSmall">{(at.offer.secret.match(/.{1,4}/g) ?? []).join(' ')}</Txt>
          <Field
            label="Code"
            hint="the six digits your app shows now"
            value={text}
            onChange={setText}
            autoComplete="one-time-code"
            problem={problem}
            onSubmit={() => void confirm()}
          />
          <View style={{ flexDirection: 'row', gap: space.step }}>
            <Button title="Leave it off" onPress={() => go({ step: 'rest' })} />
            <Button title="Turn on" manner="main" busy={busy} onPress={() => void confirm()} />
          </View>
        </>
      ) : null}
      {at.step === 'spare' ? (
        <>
          <Txt>
            Codes are on. Write these down and keep them away from the phone: each lets you in once
            on the day it is lost. They are not shown again.
          </Txt>
          <View role="list" aria-label="Spare codes" style={{ gap: space.hair }}>
            {at.spare.map((code) => (
              <View key={code} role="listitem">
                <Txt as="number">{code}</Txt>
              </View>
            ))}
          </View>
          <Button
            title="I have written them down"
            manner="main"
            style={{ alignSelf: 'flex-start' }}
            onPress={() => go({ step: 'rest' })}
          />
        </>
      ) : null}
    </View>
  );
}
