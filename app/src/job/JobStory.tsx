import { clockAnswers, correctedMs, sayJobFact } from '@keen-bleed/core';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { sayDay, sayMinute } from '../data/when';
import { PhotoStrip } from '../photos/PhotoStrip';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import type { LiveJob } from './useJob';

interface JobStoryProps {
  job: LiveJob;
  onTakeBack: ((factId: string) => void) | null;
}

/** What was done in a job, the newest first, and by whom. */
export function JobStory({ job, onTakeBack }: JobStoryProps) {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const { state, facts, header, writers, lane } = job;
  const answers = clockAnswers(facts);
  const tail = state.tails.get(lane);
  const superseded = new Set(state.earlier.map(({ id }) => id));
  const told = [
    ...state.told,
    // A conclusion that was wrong stays to be read.
    ...state.earlier.filter(({ id }) => !state.told.some((fact) => fact.id === id)),
  ].sort((a, b) => correctedMs(a, answers.get(a.lane)) - correctedMs(b, answers.get(b.lane)));
  if (told.length === 0) return null;
  return (
    <View>
      <Txt as="heading" heading={2}>
        What was done
      </Txt>
      <View role="list" aria-label="What was done">
        {[...told].reverse().map((fact) => {
          const { title, text } = sayJobFact(header, fact, sayIn);
          const isMine = fact.lane === lane;
          const photos = 'photos' in fact ? (fact.photos ?? []) : [];
          const mayTakeBack = isMine && fact.id === tail && fact.kind !== 'retested';
          return (
            <View key={fact.id} role="listitem">
              <Rule />
              <View style={{ paddingVertical: space.near, gap: space.hair }}>
                <Txt as="bodyBold" tone={superseded.has(fact.id) ? 'quiet' : 'ink'}>
                  {superseded.has(fact.id) ? `${title} (superseded)` : title}
                </Txt>
                {text === '' ? null : <Txt>{text}</Txt>}
                <PhotoStrip ids={photos} of={title} />
                <Txt as="small" tone="quiet">
                  {`${isMine ? me.name : (writers[fact.lane] ?? 'somebody')}, ${sayDay(correctedMs(fact, answers.get(fact.lane)))}, ${sayMinute(correctedMs(fact, answers.get(fact.lane)))}`}
                </Txt>
                {mayTakeBack && onTakeBack ? (
                  <Button
                    title="Take back"
                    label={`Take back: ${title}`}
                    manner="quiet"
                    onPress={() => onTakeBack(fact.id)}
                    style={{ alignSelf: 'flex-start', marginLeft: -space.near }}
                  />
                ) : null}
              </View>
            </View>
          );
        })}
        <Rule />
      </View>
    </View>
  );
}
