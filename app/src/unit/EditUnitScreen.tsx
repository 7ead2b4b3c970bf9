import type { Unit, UnitDraft } from '@keen-bleed/contract';
import { unitTitle } from '@keen-bleed/core';
import { useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { ask } from '../wire/api';
import { useUnit } from '../data/useRecords';
import { usePrefs } from '../prefs/prefs';
import { Notice } from '../ui/Notice';
import { Screen } from '../ui/Screen';
import { Waiting } from '../ui/Waiting';
import { UnitEditor } from './UnitEditor';
import { formOf } from './unitForm';
import { forRecorders } from '../account/forRecorders';

/** Changes a unit. */
export const EditUnitScreen = forRecorders('Edit', EditUnit);

function EditUnit() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { data, error } = useUnit(id);
  if (data) return <Editing unit={data} />;
  return (
    <Screen title="Edit">
      {error ? (
        <Notice manner="trouble" title="This unit cannot be edited" text={error.message} />
      ) : (
        <Waiting />
      )}
    </Screen>
  );
}

function Editing({ unit: opened }: { unit: Unit }) {
  const { unit: pressureUnit } = usePrefs();
  const { mutate } = useUnit(opened.id);
  // What was opened stays what is edited, whatever arrives meanwhile; its revision goes with it.
  const [unit] = useState(opened);
  const [start] = useState(() => {
    const { id: _id, revision: _revision, retiredAtMs: _retired, ...draft } = unit;
    return formOf(draft satisfies UnitDraft, pressureUnit);
  });
  return (
    <Screen title={`Edit ${unitTitle(unit)}`} width={720}>
      <UnitEditor
        draftName={`${unit.id}/${unit.revision}`}
        start={start}
        doTitle="Save"
        save={async (draft) => {
          const saved = await ask('PUT', `/api/v1/units/${unit.id}`, {
            revision: unit.revision,
            draft,
          });
          await mutate(saved, { revalidate: false });
          return `/unit/${unit.id}`;
        }}
      />
    </Screen>
  );
}
