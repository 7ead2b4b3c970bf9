import { useRef } from 'react';
import { Pressable, View } from 'react-native';
import { target } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

interface SegmentsProps<T extends string> {
  /** What is chosen, for assistive technology. */
  label: string;
  options: readonly { value: T; title: string }[];
  value: T;
  onChange: (value: T) => void;
  size?: 'finger' | 'glove';
  /** Short words, all in one row of equal widths. */
  dense?: boolean;
}

/** One of a few, all in sight. The arrows move the choice, as in any group of radio buttons. */
export function Segments<T extends string>({
  label,
  options,
  value,
  onChange,
  size = 'finger',
  dense = false,
}: SegmentsProps<T>) {
  const palette = usePalette();
  const row = useRef<View>(null);
  const move = (by: number) => {
    const at = options.findIndex((option) => option.value === value);
    // Where nothing is chosen yet the arrows begin at either end.
    const next =
      at < 0 ? (by > 0 ? 0 : options.length - 1) : (at + by + options.length) % options.length;
    const option = options[next];
    if (!option) return;
    onChange(option.value);
    const buttons = (row.current as unknown as HTMLElement | null)?.querySelectorAll<HTMLElement>(
      '[role="radio"]',
    );
    buttons?.[next]?.focus();
  };
  return (
    <View
      ref={row}
      role="radiogroup"
      aria-label={label}
      style={{ flexDirection: 'row', flexWrap: dense ? 'nowrap' : 'wrap', gap: 2 }}
    >
      {options.map((option, n) => {
        const chosen = option.value === value;
        const isReached = chosen || (n === 0 && !options.some((each) => each.value === value));
        return (
          <Pressable
            key={option.value}
            role="radio"
            aria-checked={chosen}
            tabIndex={isReached ? 0 : -1}
            onPress={() => onChange(option.value)}
            {...({
              onKeyDown: (event: {
                key: string;
                preventDefault: () => void;
                stopPropagation: () => void;
              }) => {
                const by = {
                  ArrowRight: 1,
                  ArrowDown: 1,
                  ArrowLeft: -1,
                  ArrowUp: -1,
                }[event.key];
                if (by === undefined) return;
                event.preventDefault();
                // The arrows are this group's while it has the focus, not the run's.
                event.stopPropagation();
                move(by);
              },
            } as object)}
            style={{
              minHeight: target[size],
              paddingHorizontal: dense ? 2 : 12,
              flexGrow: 1,
              ...(dense ? { flexBasis: 0, minWidth: 0 } : {}),
              alignItems: 'center',
              justifyContent: 'center',
              backgroundColor: chosen ? palette.ink : palette.raised,
            }}
          >
            <Txt
              as={dense ? (chosen ? 'smallBold' : 'small') : chosen ? 'bodyBold' : 'body'}
              tone={chosen ? 'ground' : 'ink'}
            >
              {option.title}
            </Txt>
          </Pressable>
        );
      })}
    </View>
  );
}
