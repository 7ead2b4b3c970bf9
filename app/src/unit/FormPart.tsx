import type { ReactNode } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Txt } from '../ui/Txt';

/** A titled part of a form. */
export function Part({
  title,
  lead,
  problem,
  children,
}: {
  title: string;
  lead?: string;
  problem?: string | undefined;
  children: ReactNode;
}) {
  return (
    <View style={{ gap: space.gap }}>
      <View>
        <Txt as="heading" heading={2}>
          {title}
        </Txt>
        {lead ? <Txt tone="quiet">{lead}</Txt> : null}
        {problem ? (
          <Txt as="small" tone="fail" live="polite">
            {problem}
          </Txt>
        ) : null}
      </View>
      {children}
    </View>
  );
}

/** Boxes side by side, as far as there is room. */
export function Row({ children }: { children: ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>{children}</View>
  );
}
