import type { UnitDraft } from '@keen-bleed/contract';
import { router } from 'expo-router';
import { useEffect, useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { View } from 'react-native';
import { useMe, sessionEnded } from '../account/session';
import { asProblem } from '../wire/api';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { dropDraft, keptDraft, keepDraft } from './formDraft';
import { draftOf, problemsByBox, type UnitForm } from './unitForm';
import { UnitFormFields } from './UnitFormFields';

interface UnitEditorProps {
  /** Names what is being filled in, so that it is found again after a reload. */
  draftName: string;
  start: UnitForm;
  doTitle: string;
  /** Sends it; gives the address to go to. */
  save: (draft: UnitDraft) => Promise<string>;
}

/** The form of a unit: checked as the server will check it, and kept while it is being filled in. */
export function UnitEditor({ draftName, start, doTitle, save }: UnitEditorProps) {
  const me = useMe();
  const name = `${me.personId}/${draftName}`;
  const [kept] = useState(() => keptDraft(name));
  const { control, setValue, getValues, reset } = useForm<UnitForm>({
    // What was kept before a box was new has none: that box begins as it would have.
    defaultValues: { ...start, ...kept },
  });
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [isKept, setIsKept] = useState(kept !== null);

  const values = useWatch({ control });
  useEffect(() => {
    if (JSON.stringify(values) !== JSON.stringify(start)) keepDraft(name, getValues());
  }, [getValues, name, start, values]);

  const submit = async () => {
    const read = draftOf(getValues());
    if ('problems' in read) {
      setProblems(problemsByBox(read.problems));
      const count = read.problems.length;
      setTrouble(
        count === 1 ? (read.problems[0]?.message ?? null) : `${count} boxes need another look.`,
      );
      return;
    }
    setProblems({});
    setTrouble(null);
    setBusy(true);
    try {
      const to = await save(read.draft);
      dropDraft(name);
      router.replace(to);
    } catch (error) {
      const problem = asProblem(error);
      setProblems(problemsByBox(problem.fields));
      // Signed out meanwhile: the sign-in comes over this form, which stays as it is.
      if (problem.code === 'not-signed-in') sessionEnded();
      else setTrouble(problem.message);
    } finally {
      setBusy(false);
    }
  };

  return (
    <View style={{ gap: space.wide, marginTop: space.gap }}>
      {isKept ? (
        <Notice
          title="Found again as you left it"
          action={{
            title: 'Start over',
            onPress: () => {
              dropDraft(name);
              reset(start);
              setIsKept(false);
            },
          }}
        />
      ) : null}
      <UnitFormFields control={control} setValue={setValue} problems={problems} />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button
          title="Back"
          size="glove"
          onPress={() => (router.canGoBack() ? router.back() : router.replace('/'))}
        />
        <Button
          title={doTitle}
          manner="main"
          size="glove"
          busy={busy}
          style={{ flexGrow: 1 }}
          onPress={() => void submit()}
        />
      </View>
    </View>
  );
}
