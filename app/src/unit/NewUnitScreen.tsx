import { newUnitDraft } from '@keen-bleed/core';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { ask } from '../wire/api';
import { usePrefs } from '../prefs/prefs';
import { Screen } from '../ui/Screen';
import { UnitEditor } from './UnitEditor';
import { formOf } from './unitForm';
import { forRecorders } from '../account/forRecorders';

/** Adds a unit to the yard. */
export const NewUnitScreen = forRecorders('New unit', NewUnit);

function NewUnit() {
  const { unit } = usePrefs();
  // One id for this form, so that pressing twice, or again after a lost answer, makes one unit.
  const [id] = useState(() => uuidv7());
  const [start] = useState(() => ({
    ...formOf(newUnitDraft('truck', new Date().getFullYear()), unit),
    // Filled in by us and read by nobody: no law is decided by it until somebody says so.
    yearIs: 'not-sure' as const,
  }));
  return (
    <Screen title="New unit" lead="The usual layout is filled in; change what differs." width={720}>
      <UnitEditor
        draftName="new"
        start={start}
        doTitle="Add to the yard"
        save={async (draft) => {
          const made = await ask('POST', '/api/v1/units', { id, draft });
          return `/unit/${made.id}`;
        }}
      />
    </Screen>
  );
}
