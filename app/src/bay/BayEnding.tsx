import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import type { BayEnd, BayFault } from './bayProtocol';
import type { Bay } from './useBay';

const NOTHING = 'nothing is wrong';

const times = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;

/** What the time in the Bay would have worn. */
function sayWear({ engineS, loadedS, purges, applications }: BayEnd['wear']): string {
  const duty = engineS > 0 ? Math.round((100 * loadedS) / engineS) : 0;
  return `The compressor loaded ${duty} % of the time the engine ran; ${times(purges, 'purge')}, ${times(applications, 'application')}.`;
}

interface BayEndingProps {
  bay: Bay;
  /** What the technician says it is. */
  said: readonly BayFault[];
  /** A part was changed. */
  isMended: boolean;
  onUnsay: (fault: BayFault) => void;
  onEnd: (ending: string) => void;
  onLeave: () => void;
}

/** What is thought to be wrong, named on the drawing; ends the hunt, and tells what it was and the shortest way there. */
export function BayEnding({ bay, said, isMended, onUnsay, onEnd, onLeave }: BayEndingProps) {
  const [ended, setEnded] = useState<BayEnd | null>(null);
  const [ending, setEnding] = useState(false);
  if (ended) {
    const was = ended.was.map(({ part, title }) => `${part}: ${title}`).join(' · ');
    return (
      <View style={{ gap: space.step }}>
        <VerdictSign verdict={ended.right ? 'pass' : 'fail'} />
        <Notice
          title={ended.right ? 'Found' : 'Not found'}
          text={`It was: ${was || NOTHING}. ${times(ended.checks, 'check')}, ${Math.round(ended.minutes)} minutes of work, ${
            ended.wrongParts === 0 ? 'no part' : times(ended.wrongParts, 'part')
          } changed for nothing.`}
        />
        {ended.best.map(({ title, state, minutes }) => (
          <Txt
            key={title}
          >{`The shortest way: ${title}, ${state.toLowerCase()}: ${Math.round(minutes)} minutes.`}</Txt>
        ))}
        {ended.was.length > 0 && ended.best.length === 0 ? (
          <Txt>No single check tells it from a sound rig.</Txt>
        ) : null}
        <Txt tone="quiet">{sayWear(ended.wear)}</Txt>
        <Button
          title="Another rig"
          manner="main"
          onPress={onLeave}
          style={{ alignSelf: 'flex-start' }}
        />
      </View>
    );
  }
  const check = async () => {
    setEnding(true);
    const end = await bay.end(said.map(({ id }) => id));
    setEnding(false);
    setEnded(end);
    const was = end.was.map(({ part, title }) => `${part}: ${title}`).join(' · ');
    onEnd(`${end.right ? 'Found' : 'Not found'}: ${was || NOTHING}`);
  };
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        What is it?
      </Txt>
      {said.length === 0 ? (
        <Txt tone="quiet">Tap the part you mean on the drawing and say what is wrong with it.</Txt>
      ) : (
        said.map((fault) => (
          <View
            key={fault.id}
            style={{ flexDirection: 'row', alignItems: 'center', gap: space.near }}
          >
            <View style={{ flex: 1 }}>
              <Txt as="bodyBold">{`${fault.part}: ${fault.title}`}</Txt>
            </View>
            <Button
              title="Not this"
              label={`It is not this: ${fault.title}`}
              onPress={() => onUnsay(fault)}
            />
          </View>
        ))
      )}
      <Button
        title={
          said.length > 0
            ? 'I know what it is'
            : isMended
              ? 'It is mended: end it'
              : 'I say nothing is wrong'
        }
        manner="main"
        size="glove"
        busy={ending}
        onPress={() => void check()}
        style={{ alignSelf: 'flex-start' }}
      />
    </View>
  );
}
