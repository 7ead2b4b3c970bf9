import type { Outcome, RunFact } from '@keen-bleed/contract';
import type { NewFact } from '@keen-bleed/core';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Txt } from '../ui/Txt';
import { AddNote } from './AddNote';
import { FigureList } from './FigureList';
import { FindingList } from './FindingList';

interface RecordOutcomeProps {
  outcome: Outcome;
  /** Adds a note; null for whoever may not. */
  onAdd?: ((fact: NewFact<RunFact>) => Promise<string | null>) | null;
}

/** What a run came to: its figures with their limits and sources, its findings, what was left out, and its notes. */
export function RecordOutcome({ outcome, onAdd = null }: RecordOutcomeProps) {
  const wide = useWide();
  const { unit } = usePrefs();
  return (
    <View style={{ gap: space.gap, flex: wide ? 1 : undefined }}>
      {outcome.dial ? <Txt tone="quiet">{outcome.dial}</Txt> : null}
      <FigureList figures={outcome.figures} unit={unit} full />
      <FindingList findings={outcome.findings} />
      <Lines
        title="Left out"
        lines={outcome.skipped.map((each) => `${each.title}: ${each.reason}`)}
      />
      <Lines title="Notes" lines={outcome.notes.map((note) => `${note.title}: ${note.text}`)} />
      {onAdd ? <AddNote onAdd={onAdd} /> : null}
      <Txt as="small" tone="quiet">
        This record advises; it does not replace the inspection your law asks for.
      </Txt>
    </View>
  );
}

function Lines({ title, lines }: { title: string; lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="heading" heading={2}>
        {title}
      </Txt>
      {lines.map((line, index) => (
        <Txt key={index}>{line}</Txt>
      ))}
    </View>
  );
}
