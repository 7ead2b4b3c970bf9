import type { DrainedThing } from '@keen-bleed/contract';
import type { DrainAmount, Drained } from '@keen-bleed/core/water';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Chips } from '../ui/Chips';
import { Rule } from '../ui/Rule';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';
import { AMOUNTS, sayDrained, THINGS } from './waterWords';

interface DrainRowProps {
  title: string;
  drained: Drained | undefined;
  /** The drain whose cord drained this tank as well. */
  sharedWith: string | null;
  mayWrite: boolean;
  onAmount: (amount: DrainAmount) => void;
  onWhat: (what: DrainedThing[]) => void;
  onMore: () => void;
}

/** One drain: how much in one touch, what it was in another. */
export function DrainRow({
  title,
  drained,
  sharedWith,
  mayWrite,
  onAmount,
  onWhat,
  onMore,
}: DrainRowProps) {
  const isBad =
    drained !== undefined &&
    (drained.amount === 'cup' || drained.amount === 'more' || drained.stuck);
  return (
    <View role="listitem">
      <Rule />
      <View style={{ paddingVertical: space.near, gap: space.hair }}>
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near }}>
          {isBad ? <VerdictShape verdict="fail" /> : null}
          <Txt as="bodyBold" style={{ flex: 1 }}>
            {title}
          </Txt>
          {mayWrite ? (
            <Button
              title="More…"
              label={`Measured amount, stuck drain, shared cord or photo: ${title}`}
              manner="quiet"
              onPress={onMore}
            />
          ) : null}
        </View>
        {mayWrite ? (
          <Segments
            dense
            label={`What came out of the ${title.toLowerCase()}`}
            options={AMOUNTS}
            value={drained?.amount ?? ('' as DrainAmount)}
            onChange={onAmount}
          />
        ) : null}
        {mayWrite && drained && drained.amount !== 'dry' ? (
          <Chips
            label={`What it was, ${title.toLowerCase()}`}
            options={THINGS}
            chosen={drained.what}
            onChange={onWhat}
          />
        ) : null}
        {sharedWith && !drained ? (
          <Txt as="small">{`Drained by the cord of the ${sharedWith.toLowerCase()}.`}</Txt>
        ) : null}
        {drained && (!mayWrite || drained.ml !== null || drained.stuck) ? (
          <Txt as="small" tone="quiet">
            {sayDrained(drained.amount, {
              ...(drained.ml === null ? {} : { ml: drained.ml }),
              what: drained.what,
              stuck: drained.stuck,
            })}
          </Txt>
        ) : null}
      </View>
    </View>
  );
}
