import { createElement } from 'react';
import { usePalette } from '../theme/usePalette';

const SIDE = 96;

/** One photo, small; a touch on it opens it whole. */
export function Picture({ url, says }: { url: string; says: string }) {
  const palette = usePalette();
  return createElement(
    'a',
    { href: url, target: '_blank', rel: 'noreferrer', 'aria-label': `${says}, open it whole` },
    createElement('img', {
      src: url,
      alt: says,
      width: SIDE,
      height: SIDE,
      style: { objectFit: 'cover', display: 'block', border: `1.5px solid ${palette.edge}` },
    }),
  );
}
