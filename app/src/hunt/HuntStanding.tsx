import type { Unit } from '@keen-bleed/contract';
import type { Joint, Pass } from '@keen-bleed/core/hunt';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Notice } from '../ui/Notice';
import { Txt } from '../ui/Txt';
import { PASS_TITLES, sayChance } from './huntWords';
import type { Hunt } from './useHunt';

/** How the hunt stands, in words: what is still out there, and where. */
export function HuntStanding({
  hunt,
  units,
  titleOf,
}: {
  hunt: Pick<Hunt, 'budget' | 'failed' | 'joints'>;
  units: readonly Unit[];
  titleOf: (joint: Joint) => string;
}) {
  const { budget, failed, joints } = hunt;
  if (failed) {
    return (
      <Notice
        manner="trouble"
        title="The budget cannot be reckoned on this device"
        text="The walk works without it, and nothing that was recorded is lost."
      />
    );
  }
  if (!budget) {
    return (
      <Txt as="small" tone="quiet" live="polite">
        Working out what each needle loses to a leak at each joint.
      </Txt>
    );
  }
  const { chance, where, lines, closed, tooMuch } = budget;
  const suspect = joints.find(({ place }) => place === tooMuch);
  const [first] = where;
  const sayWhere = (section: string) => {
    const [pass, unit] = section.split(' ') as [Pass, string];
    const of = units.length > 1 ? `, ${units[Number(unit)]?.number ?? ''}` : '';
    return `${PASS_TITLES[pass].toLowerCase()}${of}`;
  };
  return (
    <View role="status" aria-label="How the hunt stands" style={{ gap: space.hair }}>
      <Txt as="bodyBold">
        {lines.length === 0
          ? 'No hold yet: watch a needle first, then every joint counts.'
          : closed
            ? 'The budget closes: what was lost is found and mended. The hunt is over.'
            : `A leak worth finding is still out there: ${sayChance(chance)}.`}
      </Txt>
      {!closed && lines.length > 0 && first && first.chance > 0.02 ? (
        <Txt as="small">{`Likeliest in the pass ${sayWhere(first.section)}: ${first.joints} ${first.joints === 1 ? 'joint' : 'joints'} left there, ${sayChance(first.chance)}.`}</Txt>
      ) : null}
      {suspect ? (
        <Notice
          manner="trouble"
          title="More air is found than lost"
          text={`Look at ${titleOf(suspect)} again: what it was called weighs most. Or hold again.`}
        />
      ) : null}
    </View>
  );
}
