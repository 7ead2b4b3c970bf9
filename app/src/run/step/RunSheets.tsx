import type { RunState } from '@keen-bleed/core';
import type { NewRunFact } from '../../store/useRun';
import { KeysSheet } from '../desk/KeysSheet';
import { WriteSheet } from './WriteSheet';

export type SheetName = 'note' | 'skip' | 'stop' | 'keys' | null;

interface RunSheetsProps {
  sheet: SheetName;
  state: RunState;
  tell: (fact: NewRunFact) => void;
  onLeave: () => void;
}

/** What a run asks for in words: a note, a reason to skip, a reason to stop; and the list of keys. */
export function RunSheets({ sheet, state, tell, onLeave }: RunSheetsProps) {
  const { step } = state;
  const done = (fact: NewRunFact) => {
    tell(fact);
    onLeave();
  };
  switch (sheet) {
    case null:
      return null;
    case 'keys':
      return <KeysSheet onLeave={onLeave} />;
    case 'note': {
      const stepId = step?.id ?? state.procedure.steps.at(-1)?.id;
      return (
        <WriteSheet
          title="Note"
          label="What you saw, heard or did"
          doTitle="Keep note"
          most={500}
          onLeave={onLeave}
          onDone={(text) => (stepId ? done({ kind: 'note', stepId, text }) : onLeave())}
        />
      );
    }
    case 'skip':
      return step ? (
        <WriteSheet
          title={`Skip “${step.title}”`}
          label="Or in your own words"
          ready={[
            'No room to do it safely',
            'Gauge cannot be read',
            'Trailer not here',
            'Not asked for today',
          ]}
          doTitle="Skip it"
          most={200}
          onLeave={onLeave}
          onDone={(reason) => done({ kind: 'skip', stepId: step.id, reason })}
        />
      ) : null;
    case 'stop':
      return (
        <WriteSheet
          title="Stop and keep as not finished"
          label="Or in your own words"
          ready={['Called away', 'Fault found, repair first', 'No chocks', 'Not safe to go on']}
          doTitle="Stop the run"
          most={200}
          onLeave={onLeave}
          onDone={(reason) => done({ kind: 'close', how: 'incomplete', reason })}
        />
      );
  }
}
