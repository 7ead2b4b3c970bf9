import type { ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { OutboxSign } from '../ui/OutboxSign';
import { Txt } from '../ui/Txt';
import type { WalkRound } from './useWalkRound';

interface WalkPageProps {
  walk: WalkRound;
  mayWrite: boolean;
  /** Stands first; on a wide screen over the list. */
  head: ReactNode;
  /** What is gone through. */
  list: ReactNode;
  /** What it comes to: beside the list on a wide screen. */
  side: ReactNode;
  /** On a phone what it comes to stands over the list. */
  sideFirst?: boolean;
  sideWidth?: number;
  sheets: ReactNode;
}

/** A page of a walk round a rig: the list, what it comes to beside it, and the last entry to be taken back. */
export function WalkPage({
  walk,
  mayWrite,
  head,
  list,
  side,
  sideFirst = false,
  sideWidth = 440,
  sheets,
}: WalkPageProps) {
  const wide = useWide();
  const foot = mayWrite ? <TakeBack walk={walk} /> : null;
  if (wide) {
    return (
      <View role="main" style={{ flex: 1, flexDirection: 'row' }}>
        <ScrollView
          style={{ flex: 1 }}
          contentContainerStyle={{ padding: space.wide, gap: space.gap }}
        >
          {head}
          {list}
          {foot}
        </ScrollView>
        <ScrollView
          style={{ width: sideWidth, flexGrow: 0 }}
          contentContainerStyle={{ padding: space.wide }}
        >
          {side}
        </ScrollView>
        {sheets}
      </View>
    );
  }
  return (
    <View role="main" style={{ flex: 1 }}>
      <ScrollView
        style={{ flex: 1 }}
        contentContainerStyle={{ padding: space.gap, gap: space.gap }}
      >
        {head}
        {sideFirst ? side : null}
        {list}
        {sideFirst ? null : side}
      </ScrollView>
      {foot}
      {sheets}
    </View>
  );
}

/** The last entry of the visit in words, whether it is sent, and the way to take it back. */
function TakeBack({ walk }: Pick<WalkPageProps, 'walk'>) {
  const wide = useWide();
  const palette = usePalette();
  const last = walk.state?.entries.at(-1) ?? null;
  if (!last || !walk.visitId || walk.state?.closed) return null;
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: space.near,
        paddingHorizontal: space.gap,
        // On a phone the list is scrolled under it.
        ...(wide ? {} : { borderTopWidth: 1, borderTopColor: palette.rule }),
      }}
    >
      <View style={{ flex: 1 }}>
        <Txt as="small" tone="quiet" lines={1}>
          {`Last: ${'title' in last ? `${last.title}: ${last.said}` : last.text}`}
        </Txt>
        {wide ? null : <OutboxSign inline />}
      </View>
      <Button
        title="Undo"
        manner="quiet"
        label="Take the last entry back"
        onPress={() => void walk.say({ kind: 'retract', target: last.id })}
      />
    </View>
  );
}

/** The way to the visit in which a walk is kept. */
export function ItsVisit({ visitId }: { visitId: string | null }) {
  if (!visitId) return null;
  return (
    <LinkTo to={`/visit/${visitId}`}>
      <Txt as="bodyBold" tone="accent">
        The visit in which this is kept
      </Txt>
    </LinkTo>
  );
}
