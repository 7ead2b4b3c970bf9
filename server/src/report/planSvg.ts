import type { Plan } from '@keen-bleed/core/drawing';

const COLOURS = { supply: '#b3261e', service: '#1d4e89', park: '#8a6d00' } as const;
const INK = '#171c20';
const QUIET = '#8b9399';

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (each) => `&#${each.charCodeAt(0)};`);

/**
 * A drawing as one picture for a file or for paper: lines in the trade's colours of air, parts as plain boxes with their
 * names, one of them marked.
 *
 * @param markedKey the part the picture is about, by its key in the drawing
 */
export function planSvg(
  { width, height, lines, symbols, units }: Plan,
  markedKey: string | null,
): string {
  const box = (
    { x, y, width: w, height: h }: { x: number; y: number; width: number; height: number },
    style: string,
  ) => `<rect x="${x}" y="${y}" width="${w}" height="${h}" ${style}/>`;
  const chassis = units.flatMap(({ rails, wheels, cab }) => [
    ...rails.map((rail) => box(rail, `fill="none" stroke="${QUIET}" stroke-width="1"`)),
    ...wheels.map((wheel) => box(wheel, `fill="${QUIET}" fill-opacity="0.25"`)),
    ...(cab ? [box(cab, `fill="none" stroke="${QUIET}" stroke-width="1"`)] : []),
  ]);
  const titles = units.map(
    ({ title, titleAt }) =>
      `<text x="${titleAt.x}" y="${titleAt.y}" font-size="13" font-weight="700" fill="${INK}">${escaped(title)}</text>`,
  );
  const piped = lines.map(
    ({ points, circuit }) =>
      `<polyline points="${points.map(({ x, y }) => `${x},${y}`).join(' ')}" fill="none" stroke="${COLOURS[circuit]}" stroke-width="1.6"/>`,
  );
  const drawn = symbols.map(({ box: at, key, label }) => {
    const isMarked = key === markedKey;
    const ring = isMarked
      ? `<circle cx="${at.x + at.width / 2}" cy="${at.y + at.height / 2}" r="${Math.max(at.width, at.height) / 2 + 8}" fill="none" stroke="${INK}" stroke-width="3"/>`
      : '';
    const words = label
      ? label.lines
          .map(
            (line, n) =>
              `<text x="${label.x + label.width / 2}" y="${label.y + 11 + n * 12}" font-size="10" text-anchor="middle" font-weight="${isMarked ? 700 : 400}" fill="${INK}">${escaped(line)}</text>`,
          )
          .join('')
      : '';
    return `${ring}${box(at, `fill="#ffffff" stroke="${INK}" stroke-width="${isMarked ? 2.5 : 1.2}" rx="3"`)}${words}`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" role="img" aria-label="Drawing" viewBox="0 0 ${width} ${height}" font-family="sans-serif">${[...chassis, ...titles, ...piped, ...drawn].join('')}</svg>`;
}

export { escaped };
