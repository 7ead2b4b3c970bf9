import { Link } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable, StyleSheet, type StyleProp, type ViewStyle } from 'react-native';
import { target } from '../theme/space';

interface LinkToProps {
  to: string;
  children: ReactNode;
  /** What it leads to, where its contents are long. */
  label?: string;
  current?: boolean;
  style?: StyleProp<ViewStyle>;
}

/** A way to another screen: a true link, so that it can be opened beside and is found by the keyboard. */
export function LinkTo({ to, children, label, current, style }: LinkToProps) {
  return (
    <Link href={to} asChild>
      <Pressable
        {...(label ? { 'aria-label': label } : {})}
        {...(current ? { 'aria-current': 'page' as const } : {})}
        // The link hands its style on to a plain element, which takes one object and no list.
        style={StyleSheet.flatten([{ minHeight: target.finger, justifyContent: 'center' }, style])}
      >
        {children}
      </Pressable>
    </Link>
  );
}
