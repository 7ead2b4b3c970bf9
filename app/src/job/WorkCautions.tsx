import type { Repair, Unit } from '@keen-bleed/contract';
import { chamberAt, howToOf, workDangers } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { Notice } from '../ui/Notice';
import { Txt } from '../ui/Txt';
import { dangerWords, howToWords } from './workWords';

interface WorkCautionsProps {
  unit: Unit;
  partId: string;
  /** Null until it is chosen: then the part’s own dangers are shown, as of changing it. */
  repair: Repair | null;
}

/** The cautions of one work on one part, and how it is done where that is a walk of its own. */
export function WorkCautions({ unit, partId, repair }: WorkCautionsProps) {
  const { unit: sayIn } = usePrefs();
  const [open, setOpen] = useState<string | null>(null);
  const work = repair ?? 'replaced';
  const isAutomatic = repair === 'adjusted' && chamberAt(unit, partId)?.adjuster === 'automatic';
  return (
    <View style={{ gap: space.near }}>
      <Caution lines={workDangers(unit, partId, work).map((danger) => dangerWords[danger])} />
      {isAutomatic ? (
        <Notice
          manner="trouble"
          title="Automatic adjuster: do not adjust it"
          text="A long stroke has a cause: worn bushes, linkage, arm, drum, lining, a broken spring."
        />
      ) : null}
      {howToOf(unit, partId, work).map((how) => (
        <View key={how} style={{ gap: space.hair }}>
          <Button
            title={howToWords[how].title}
            manner="quiet"
            onPress={() => setOpen(open === how ? null : how)}
            style={{ alignSelf: 'flex-start', marginLeft: -space.near }}
          />
          {open === how ? (
            <View role="list" aria-label={howToWords[how].title} style={{ gap: space.hair }}>
              {howToWords[how].steps(sayIn).map((step, at) => (
                <View key={step} role="listitem" style={{ flexDirection: 'row', gap: space.near }}>
                  <Txt as="smallBold">{String(at + 1)}</Txt>
                  <Txt as="small" style={{ flex: 1 }}>
                    {step}
                  </Txt>
                </View>
              ))}
            </View>
          ) : null}
        </View>
      ))}
    </View>
  );
}
