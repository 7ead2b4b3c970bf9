import type { JointSide } from '@keen-bleed/contract';
import { jointSides } from '@keen-bleed/contract/forms';
import type { Joint, Wetted } from '@keen-bleed/core/hunt';
import { memo, useEffect, useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';
import { SOAP } from './huntWords';

interface JointRowProps {
  joint: Joint;
  /** With its unit, where the rig has several. */
  title: string;
  last: Wetted | undefined;
  side: JointSide | null;
  /** The budget says that a leak may well be here. */
  likely: boolean;
  /** It holds no air as the rig is held, such as what lies behind a shut cock. */
  airless: boolean;
  mayWrite: boolean;
  /** Gives whether it was kept. */
  onGrade: (joint: Joint, grade: string) => Promise<boolean>;
  onSide: (joint: Joint, side: JointSide) => void;
  onMend: (joint: Joint) => void;
  onMore: (joint: Joint) => void;
}

const SIDE_TITLES: Readonly<Record<JointSide, string>> = {
  hose: 'at the hose',
  body: 'at what it screws into',
};

/** One joint of the walk: what soap shows there in one touch, and what to do about it. */
export const JointRow = memo(function JointRow({
  joint,
  title,
  last,
  side,
  likely,
  airless,
  mayWrite,
  onGrade,
  onSide,
  onMend,
  onMore,
}: JointRowProps) {
  const isMended = last !== undefined && last.grade !== 'dry' && last.mendedAtMs !== null;
  const leaks = last !== undefined && last.grade !== 'dry' && !isMended;
  // A joint that was mended is wetted again: nothing is chosen until it was.
  const known = last && !isMended ? last.grade : '';
  // What was pressed shows at once, while it is on its way to the disk.
  const [pressed, setPressed] = useState<string | null>(null);
  const saidAtMs = last?.atMs ?? null;
  const mendedAtMs = last?.mendedAtMs ?? null;
  useEffect(() => setPressed(null), [known, saidAtMs, mendedAtMs]);
  const press = (grade: string) => {
    setPressed(grade);
    void onGrade(joint, grade).then((isKept) => {
      if (!isKept) setPressed(null);
    });
  };
  const value = pressed ?? known;
  return (
    <View
      role="listitem"
      style={
        // What changes in one row moves no other: a walk may have a hundred of these.
        { contain: 'layout' } as object
      }
    >
      <Rule />
      <View style={{ paddingVertical: space.near, gap: space.hair }}>
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near }}>
          {leaks ? <VerdictShape verdict="fail" /> : null}
          <Txt as="bodyBold" style={{ flex: 1 }}>
            {title}
          </Txt>
          {likely ? (
            <Txt as="smallBold" tone="accent">
              likely here
            </Txt>
          ) : null}
          {airless ? (
            <Txt as="small" tone="quiet">
              no air as it stands
            </Txt>
          ) : null}
          {isMended ? (
            <Txt as="smallBold" tone="quiet">
              mended: wet it again
            </Txt>
          ) : null}
        </View>
        {mayWrite ? (
          <Segments
            dense
            label={`Soap on ${title}`}
            options={SOAP}
            value={value as (typeof SOAP)[number]['value']}
            onChange={press}
          />
        ) : (
          <Txt as="small" tone="quiet">
            {SOAP.find((each) => each.value === value)?.title ?? 'not wetted'}
          </Txt>
        )}
        {leaks && mayWrite ? (
          <View style={{ gap: space.hair }}>
            <Segments
              dense
              label={`Where on ${title}`}
              options={jointSides.map((each) => ({ value: each, title: SIDE_TITLES[each] }))}
              value={side ?? ('' as never)}
              onChange={(next) => onSide(joint, next)}
            />
            <View style={{ flexDirection: 'row', gap: space.near }}>
              <Button
                title="Mended…"
                label={`Mended: ${title}`}
                style={{ flex: 1 }}
                onPress={() => onMend(joint)}
              />
              <Button
                title="Note, photo…"
                label={`Note or photo: ${title}`}
                manner="quiet"
                style={{ flex: 1 }}
                onPress={() => onMore(joint)}
              />
            </View>
          </View>
        ) : null}
      </View>
    </View>
  );
});
