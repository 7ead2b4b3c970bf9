import { Text } from 'react-native';
import { target } from '../theme/space';
import { typeScale } from '../theme/type';
import { usePalette } from '../theme/usePalette';

const BORDER = 1.5;
const LINE = typeScale.bodyBold.lineHeight ?? 0;

/** A file to take out: a plain link of the page, looking like the other things to press. */
export function LinkOut({ href, title }: { href: string; title: string }) {
  const palette = usePalette();
  return (
    <Text
      {...({ href, hrefAttrs: { download: true } } as object)}
      style={[
        typeScale.bodyBold,
        {
          color: palette.ink,
          borderWidth: BORDER,
          borderColor: palette.edge,
          borderRadius: 2,
          paddingHorizontal: 18,
          minHeight: target.finger,
          // A title of two lines stays one title.
          paddingVertical: (target.finger - 2 * BORDER - LINE) / 2,
        },
      ]}
    >
      {title}
    </Text>
  );
}
