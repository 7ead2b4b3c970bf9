import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import type { BayEnd, BaySetup } from './bayProtocol';
import type { Wear } from './twinTypes';
import type { Bay } from './useBay';

const NOTHING = 'nothing is wrong';

const times = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;

/** What the hunt wore, in one line. */
function sayWear({ engineS, loadedS, purges, applications }: Wear): string {
  const duty = engineS > 0 ? Math.round((100 * loadedS) / engineS) : 0;
  return `The compressor loaded ${duty} % of the time the engine ran; ${times(purges, 'purge')}, ${times(applications, 'application')}.`;
}

interface BayEndingProps {
  bay: Bay;
  setup: BaySetup;
  onLeave: () => void;
}

/** Names what is thought to be wrong, ends the hunt, and tells what it was. */
export function BayEnding({ bay, setup, onLeave }: BayEndingProps) {
  const titles = bay.rig.faults.map(({ part, title }) => `${part}: ${title}`);
  const [first, setFirst] = useState(NOTHING);
  const [second, setSecond] = useState(NOTHING);
  const [ended, setEnded] = useState<BayEnd | null>(null);
  const twoHidden = (setup.hidden ?? 0) > 1;
  if (ended) {
    const was = ended.was.map(({ part, title }) => `${part}: ${title}`).join(' · ');
    return (
      <View style={{ gap: space.step }}>
        <VerdictSign verdict={ended.right ? 'pass' : 'fail'} />
        <Notice
          title={ended.right ? 'Found' : 'Not found'}
          text={`It was: ${was || NOTHING}. ${ended.checks} ${ended.checks === 1 ? 'check' : 'checks'}, ${ended.minutes.toFixed(1)} minutes, ${
            ended.wrongParts === 0
              ? 'no part'
              : `${ended.wrongParts} ${ended.wrongParts === 1 ? 'part' : 'parts'}`
          } changed for nothing.`}
        />
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
  const ids = [first, ...(twoHidden ? [second] : [])].flatMap((title) => {
    const at = titles.indexOf(title);
    return bay.rig.faults[at]?.id ?? [];
  });
  return (
    <View style={{ gap: space.step }}>
      <Txt as="heading" heading={2}>
        What is it?
      </Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        <Pick label="I say" options={[NOTHING, ...titles]} value={first} onChange={setFirst} />
        {twoHidden ? (
          <Pick label="and" options={[NOTHING, ...titles]} value={second} onChange={setSecond} />
        ) : null}
      </View>
      <Button
        title="Check my answer"
        manner="main"
        onPress={() => void bay.end(ids).then(setEnded)}
        style={{ alignSelf: 'flex-start' }}
      />
    </View>
  );
}
