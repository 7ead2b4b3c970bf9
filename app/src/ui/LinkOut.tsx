import { Text } from 'react-native';
import { target } from '../theme/space';
import { typeScale } from '../theme/type';
import { usePalette } from '../theme/usePalette';

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
          borderWidth: 1.5,
          borderColor: palette.edge,
          borderRadius: 2,
          paddingHorizontal: 18,
          minHeight: target.finger,
          lineHeight: target.finger - 3,
        },
      ]}
    >
      {title}
    </Text>
  );
}
