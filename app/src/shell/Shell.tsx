import { usePathname } from 'expo-router';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { wantSignIn } from '../account/signInPutOff';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import { LinkTo } from '../ui/LinkTo';
import { OutboxSign } from '../ui/OutboxSign';
import { Txt } from '../ui/Txt';
import { ShellNotices } from './ShellNotices';
import { useFocusOnPage } from './useFocusOnPage';

/** Five places fit a bar. */
const places = [
  { to: '/', title: 'Yard', under: ['/unit', '/couple'] },
  {
    to: '/work',
    title: 'Work',
    under: ['/work', '/run', '/visit', '/trace', '/unsent', '/drains'],
  },
  { to: '/jobs', title: 'Jobs', under: ['/jobs', '/job', '/lessons'] },
  { to: '/bay', title: 'Bay', under: ['/bay'] },
  { to: '/shop', title: 'Shop', under: ['/shop', '/rules', '/words', '/audit'] },
] as const;

const isAt = (path: string, place: (typeof places)[number]) =>
  path === place.to || place.under.some((prefix) => path.startsWith(prefix));

/** What stands around every screen: a rail where there is room, a bar at the thumb where there is not. */
export function Shell({ children }: { children: ReactNode }) {
  const wide = useWide();
  const palette = usePalette();
  const path = usePathname();
  useFocusOnPage(path);
  // A run fills a phone, and so does what is called to the pedal; each has its own way out.
  const bare = !wide && /^\/(run\/.|unit\/[^/]+\/pedal)/.test(path);
  return (
    <View
      style={{
        flex: 1,
        flexDirection: wide ? 'row' : 'column',
        backgroundColor: palette.ground,
      }}
    >
      {wide ? (
        <View
          role="navigation"
          aria-label="Places"
          style={{
            width: 148,
            paddingVertical: space.wide,
            borderRightWidth: 1,
            borderRightColor: palette.rule,
          }}
        >
          <View style={{ paddingHorizontal: space.gap, paddingBottom: space.gap }}>
            <Txt as="heading">Keen Bleed</Txt>
          </View>
          {places.map((place) => (
            <PlaceLink key={place.to} place={place} current={isAt(path, place)} rail />
          ))}
          <View style={{ flex: 1 }} />
          <View style={{ paddingHorizontal: space.gap }}>
            <OutboxSign wordy onSignIn={() => wantSignIn(true)} />
          </View>
        </View>
      ) : null}
      <View style={{ flex: 1, minHeight: 0, minWidth: 0 }}>
        {bare ? null : <ShellNotices />}
        {children}
      </View>
      {!wide && !bare ? (
        <View
          role="navigation"
          aria-label="Places"
          style={{
            flexDirection: 'row',
            borderTopWidth: 1,
            borderTopColor: palette.rule,
          }}
        >
          {places.map((place) => (
            <PlaceLink key={place.to} place={place} current={isAt(path, place)} />
          ))}
        </View>
      ) : null}
    </View>
  );
}

function PlaceLink({
  place,
  current,
  rail = false,
}: {
  place: (typeof places)[number];
  current: boolean;
  rail?: boolean;
}) {
  const palette = usePalette();
  const mark = current ? palette.accent : 'transparent';
  return (
    <LinkTo
      to={place.to}
      current={current}
      style={
        rail
          ? {
              borderLeftWidth: 4,
              borderLeftColor: mark,
              paddingHorizontal: space.gap - 4,
            }
          : {
              flex: 1,
              height: 64,
              alignItems: 'center',
              borderTopWidth: 4,
              borderTopColor: mark,
              paddingBottom: 4,
            }
      }
    >
      <Txt as={current ? 'bodyBold' : 'body'} tone={current ? 'ink' : 'quiet'}>
        {place.title}
      </Txt>
    </LinkTo>
  );
}
