import { rigTitle, unitTitle } from '@keen-bleed/core';
import { View } from 'react-native';
import { SignInDue } from '../account/SignInDue';
import type { LiveRun } from '../store/useRun';
import { space, target } from '../theme/space';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { OutboxSign } from '../ui/OutboxSign';
import { Txt } from '../ui/Txt';

/** A rig in the room a phone has: what is in front, and the numbers of what it pulls. */
function shortTitle({ unit, towed }: LiveRun['header']['made']): string {
  if (towed.length < 2) return rigTitle({ unit, towed });
  return [unitTitle(unit), ...towed.map((each) => each.number)].join(' + ');
}

interface RunHeadProps {
  run: LiveRun;
  wide: boolean;
  /** How a linked gauge stands. */
  said: string | null;
  /** Where a run for practice is left to; null for the sheet of the unit. */
  leave: { title: string; onPress: () => void } | null;
  onStop: () => void;
}

/** Whose run it is, how far it has come, and the ways to leave it. */
export function RunHead({ run, wide, said, leave, onStop }: RunHeadProps) {
  const { header, state } = run;
  return (
    <View style={{ gap: space.near }}>
      <View
        style={{
          flexDirection: 'row',
          alignItems: 'center',
          justifyContent: 'space-between',
          gap: space.step,
        }}
      >
        <View style={{ flex: 1, minWidth: 0 }}>
          <Txt as="bodyBold" heading={1} lines={1}>
            {wide ? rigTitle(header.made) : shortTitle(header.made)}
          </Txt>
          <View style={{ flexDirection: 'row', gap: space.step }}>
            <Txt as="small" tone="quiet" lines={1} style={{ flexShrink: 0 }}>
              {state.step
                ? `${state.stepIndex + 1} of ${state.procedure.steps.length}`
                : 'all steps'}
            </Txt>
            {said ? (
              <Txt as="small" tone="quiet" lines={1}>
                {said}
              </Txt>
            ) : null}
            {wide || said ? null : <OutboxSign inline />}
          </View>
        </View>
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near }}>
          {state.step ? (
            <Button
              manner="quiet"
              size="glove"
              title="Stop"
              label="Stop here and keep the run as not finished"
              onPress={onStop}
            />
          ) : null}
          {leave ? (
            <Button manner="quiet" size="glove" title={leave.title} onPress={leave.onPress} />
          ) : (
            <LinkTo
              to={`/unit/${header.subject.unitId}`}
              label="Leave; the run stays open"
              style={{ minHeight: target.glove, paddingHorizontal: space.near }}
            >
              <Txt>Leave</Txt>
            </LinkTo>
          )}
        </View>
      </View>
      <SignInDue />
    </View>
  );
}
