import type { Gauge } from '@keen-bleed/contract';
import { ladderScale, sayLevel, spreadApart, toPsi, type PressureWindow } from '@keen-bleed/core';

const WIDTH = 150;
const LEFT = 34;
const RAILS = 52;
const MARGIN = 10;
const FLAG_GAP = 13;

interface LadderDrawing {
  gauge: Gauge;
  windows: readonly PressureWindow[];
  marksPsi: readonly number[];
  height: number;
}

/** The ladder of a run as it was recorded, for paper: rails, rungs, windows and flags. */
export function ladderSvg({ gauge, windows, marksPsi, height }: LadderDrawing): string {
  const right = LEFT + RAILS;
  const topPsi = toPsi(gauge.top, gauge.unit);
  const { y: at, lines } = ladderScale(gauge, [0, topPsi], height, MARGIN);
  const number = (value: number) => value.toFixed(1);
  const bands = windows.map((window) => {
    const top = at(Math.min(window.toPsi, topPsi));
    const bottom = at(window.fromPsi);
    // Lines instead of a pattern: every printer and viewer draws them alike.
    const hatch = Array.from(
      { length: Math.max(1, Math.floor((bottom - top) / 4)) },
      (_, n) => `M${LEFT} ${number(top + n * 4 + 4)}L${right} ${number(top + n * 4)}`,
    ).join('');
    return `<path d="${hatch}" stroke="#9aa1a6" stroke-width="0.6"/><path d="M${LEFT} ${number(top)}H${right}M${LEFT} ${number(bottom)}H${right}" stroke="#5b656c" stroke-width="0.8"/>`;
  });
  const rungs = lines.flatMap(({ y, label }) =>
    label === null
      ? []
      : [
          `<path d="M${LEFT} ${number(y)}H${right}" stroke="#171c20" stroke-width="0.9"/>` +
            `<text x="${LEFT - 5}" y="${number(y + 3)}" font-family="Numeral" font-size="8" text-anchor="end" fill="#171c20">${label}</text>`,
        ],
  );
  const places = spreadApart(marksPsi.map(at), FLAG_GAP, height - FLAG_GAP / 2);
  const flags = marksPsi.map((psi, index) => {
    const place = places[index] ?? at(psi);
    const x = right + 7;
    return (
      `<path d="M${right - 5} ${number(at(psi))}H${right + 2}L${x} ${number(place)}" fill="none" stroke="#171c20" stroke-width="0.9"/>` +
      `<path d="M${x} ${number(place)}l4 -5.5h34v11h-34z" fill="#ffffff" stroke="#171c20" stroke-width="0.9"/>` +
      `<text x="${x + 7}" y="${number(place + 3)}" font-family="Numeral" font-size="8" fill="#171c20">${sayLevel(psi, gauge.unit)}</text>`
    );
  });
  const rails = `<path d="M${LEFT} 0V${height}M${right} 0V${height}" stroke="#171c20" stroke-width="2"/>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}" viewBox="0 0 ${WIDTH} ${height}">${bands.join('')}${rungs.join('')}${rails}${flags.join('')}</svg>`;
}
