import { useLayoutEffect, type ReactNode } from 'react';
import { Modal, ScrollView, View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

interface SheetProps {
  title: string;
  /** Called for Escape; leave it out where there is no way back. */
  onLeave?: () => void;
  /** At the thumb, or in the middle. */
  at: 'foot' | 'middle';
  children: ReactNode;
}

/** Stands over a screen until it is dealt with; the screen below stays as it is. */
export function Sheet({ title, onLeave, at, children }: SheetProps) {
  const palette = usePalette();
  const foot = at === 'foot';
  // The library hears Escape only some time after the sheet is seen; this hears it from the first moment.
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape') onLeave?.();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [onLeave]);
  return (
    <Modal
      transparent
      visible
      animationType="none"
      onRequestClose={onLeave}
      // The library's own dialog carries the name.
      {...{ 'aria-label': title }}
    >
      <View
        style={{
          flex: 1,
          justifyContent: foot ? 'flex-end' : 'center',
          alignItems: 'center',
          padding: foot ? 0 : space.gap,
          backgroundColor: `${palette.ground}CC`,
        }}
      >
        <View
          style={{
            width: '100%',
            // Never taller than the screen: what does not fit is scrolled to.
            maxHeight: '94%',
            maxWidth: foot ? 560 : 400,
            backgroundColor: palette.ground,
            borderColor: palette.edge,
            borderWidth: foot ? 0 : 2,
            borderTopWidth: 2,
            padding: foot ? space.gap : space.wide,
            gap: space.gap,
          }}
        >
          <Txt as="heading" heading={2}>
            {title}
          </Txt>
          <ScrollView
            style={{ flexGrow: 0, flexShrink: 1 }}
            contentContainerStyle={{ gap: space.gap }}
            keyboardShouldPersistTaps="handled"
          >
            {children}
          </ScrollView>
        </View>
      </View>
    </Modal>
  );
}
