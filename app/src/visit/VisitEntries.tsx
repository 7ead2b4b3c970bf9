import type { Unit } from '@keen-bleed/contract';
import {
  clockAnswers,
  correctedMs,
  entryTitles,
  entryWords,
  partOfEntry,
  photosOf,
  partTitle,
  unitTitle,
  type VisitEntry,
} from '@keen-bleed/core';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { sayMinute } from '../data/when';
import { sayPart } from '../parts/sayPart';
import { PhotoStrip } from '../photos/PhotoStrip';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';
import type { LiveVisit } from './VisitScreen';

type Entry = VisitEntry;

/** How a thing is, in the words and shapes of verdicts. */
const standings = {
  good: { word: 'good', shape: 'pass' },
  noted: { word: 'noted', shape: 'incomplete' },
  bad: { word: 'not right', shape: 'fail' },
} as const;

/** A part as it is called here: with its unit where there are several. */
export function partWords(
  at: ReturnType<typeof partOfEntry>,
  units: readonly Unit[],
): string | null {
  if (!at) return null;
  const unit = units.find((each) => each.id === at.unitId);
  const part = unit && partTitle(unit, at.partId);
  if (!unit) return at.partId;
  return units.length > 1 ? `${part ?? at.partId}, ${unitTitle(unit)}` : (part ?? at.partId);
}

interface VisitEntriesProps {
  visit: LiveVisit;
  /** Null where nothing can be put right any more. */
  onCorrect: ((entry: Extract<Entry, { kind: 'note' | 'seen' }>) => void) | null;
  onTakeBack: (factId: string) => void;
  /** Makes a job of what was found; null for whoever may not write. */
  onJob?: ((entry: Entry) => void) | null;
}

/** What was noted and seen, the newest first. */
export function VisitEntries({ visit, onCorrect, onTakeBack, onJob = null }: VisitEntriesProps) {
  const me = useMe();
  const { state, facts, header, writers, lane } = visit;
  const answers = clockAnswers(facts);
  if (state.entries.length === 0) {
    return state.parts.length > 0 ? null : (
      <Notice
        title="Nothing noted yet"
        text="What you see, hear or feel goes here, at its part or for the whole."
      />
    );
  }
  return (
    <View role="list" aria-label="Notes and findings">
      {[...state.entries].reverse().map((entry) => {
        const standing = entry.kind === 'seen' ? standings[entry.standing] : null;
        const isMine = entry.lane === lane;
        const part = partWords(partOfEntry(entry), header.made.units);
        return (
          <View key={entry.id} role="listitem">
            <Rule />
            <View style={{ paddingVertical: space.step, gap: space.hair }}>
              <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near }}>
                {standing ? <VerdictShape verdict={standing.shape} /> : null}
                <Txt as="bodyBold" style={{ flexShrink: 1 }}>
                  {[
                    part,
                    entry.kind === 'check'
                      ? entry.title
                      : entry.kind === 'seen'
                        ? standing?.word
                        : entry.kind === 'note' && part
                          ? null
                          : entryTitles[entry.kind],
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </Txt>
              </View>
              <Txt>{entryWords(entry)}</Txt>
              <PhotoStrip ids={photosOf(entry)} of={entryWords(entry)} />
              <Txt as="small" tone="quiet">
                {`${isMine ? me.name : (writers[entry.lane] ?? 'somebody')}, ${sayMinute(correctedMs(entry, answers.get(entry.lane)))}`}
              </Txt>
              {onJob &&
              (entry.kind === 'check' || (entry.kind === 'seen' && entry.standing !== 'good')) ? (
                <Button
                  title="Make a job of it"
                  label={`Make a job of it: ${entryWords(entry)}`}
                  manner="quiet"
                  onPress={() => onJob(entry)}
                  style={{ alignSelf: 'flex-start', marginLeft: -space.near }}
                />
              ) : null}
              {isMine && onCorrect ? (
                <View style={{ flexDirection: 'row', gap: space.near, marginLeft: -space.near }}>
                  {entry.kind !== 'note' && entry.kind !== 'seen' ? null : (
                    <Button
                      title="Correct"
                      label={`Correct: ${entryWords(entry)}`}
                      manner="quiet"
                      onPress={() => onCorrect(entry)}
                    />
                  )}
                  <Button
                    title="Take back"
                    label={`Take back: ${entryWords(entry)}`}
                    manner="quiet"
                    onPress={() => onTakeBack(entry.id)}
                  />
                </View>
              ) : null}
            </View>
          </View>
        );
      })}
      <Rule />
    </View>
  );
}

/** How parts were found in a visit, each as it was last said. */
export function VisitParts({ visit }: { visit: LiveVisit }) {
  const { unit: sayIn } = usePrefs();
  const { state, header } = visit;
  if (state.parts.length === 0) return null;
  return (
    <View>
      <Txt as="heading" heading={2}>
        Parts
      </Txt>
      <View role="list" aria-label="Parts found">
        {state.parts.map((fact) => {
          const { at, atMs, offsetMs } = fact;
          const record = { ...fact, partId: at.partId, foundAtMs: atMs - (offsetMs ?? 0) };
          return (
            <View key={fact.id} role="listitem">
              <Rule />
              <View style={{ paddingVertical: space.near }}>
                <Txt as="bodyBold">{partWords(at, header.made.units)}</Txt>
                <Txt as="small" tone="quiet">
                  {sayPart(record, sayIn)}
                </Txt>
                <PhotoStrip
                  ids={fact.photos ?? []}
                  of={partWords(at, header.made.units) ?? at.partId}
                />
              </View>
            </View>
          );
        })}
        <Rule />
      </View>
    </View>
  );
}
