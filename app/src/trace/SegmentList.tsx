import type { PressureUnit } from '@keen-bleed/contract';
import type { Segment } from '@keen-bleed/core/trace';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { space, target } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { saySegment, segmentTitles } from './sayTrace';

interface SegmentListProps {
  segments: readonly Segment[];
  unit: PressureUnit;
  chosen: Segment | null;
  onChoose: (segment: Segment) => void;
}

/** So many are shown at once: a recording of hours has hundreds, and a screen is not to wait for them. */
const AT_ONCE = 40;

/** The segments that were found; one that is tapped is looked at closely. */
export function SegmentList({ segments, unit, chosen, onChoose }: SegmentListProps) {
  const palette = usePalette();
  const [shown, setShown] = useState(AT_ONCE);
  const left = segments.length - shown;
  return (
    <View>
      <Txt as="heading" heading={2}>
        {segments.length === 0 ? 'Nothing a run knows was found' : 'Found in it'}
      </Txt>
      <View role="list" aria-label="Segments">
        {segments.slice(0, shown).map((segment) => (
          <View key={`${segment.kind}${segment.fromS}`} role="listitem">
            <Rule />
            <Pressable
              role="button"
              aria-pressed={segment === chosen}
              onPress={() => onChoose(segment)}
              style={({ pressed }) => ({
                minHeight: target.finger,
                paddingVertical: space.near,
                backgroundColor: pressed ? palette.raised : 'transparent',
              })}
            >
              <Txt as={segment === chosen ? 'bodyBold' : 'body'}>{segmentTitles[segment.kind]}</Txt>
              <Txt as="small" tone="quiet">
                {saySegment(segment, unit)}
              </Txt>
            </Pressable>
          </View>
        ))}
        <Rule />
      </View>
      {left > 0 ? (
        <Button
          title={`Show ${Math.min(left, AT_ONCE)} more of ${left.toLocaleString('en-GB')}`}
          onPress={() => setShown(shown + AT_ONCE)}
          style={{ alignSelf: 'flex-start', marginTop: space.step }}
        />
      ) : null}
    </View>
  );
}
