import type { PressureUnit, School } from '@keen-bleed/contract';
import { fromPsi, pressuresIn, rounded } from '@keen-bleed/core';
import type { BenchFigure, Beside, FigureLimit } from '@keen-bleed/core/bench';

const COVERAGE = 1.96;

/** A pressure to a tenth of a psi: a bench reads finer than a dash. */
const finely = (psi: number, unit: PressureUnit): string =>
  `${rounded(fromPsi(psi, unit), unit === 'psi' ? 1 : unit === 'kPa' ? 0 : 2)} ${unit}`;

function sayValue(value: number, of: BenchFigure['unit'], unit: PressureUnit): string {
  switch (of) {
    case 'psi':
      return finely(value, unit);
    case 'for 1':
      return rounded(value, 2);
    case 's':
      return `${rounded(value, Math.abs(value) < 3 ? 2 : 1)} s`;
    case 'scfm':
      return `${rounded(value, 3)} scfm`;
    case 'mm':
      return `${rounded(value, 0)} mm`;
  }
}

/** A figure's number and its doubt. */
export const sayNumber = ({ value, sd, unit: of }: BenchFigure, unit: PressureUnit): string =>
  `${sayValue(value, of, unit)} ± ${sayValue(COVERAGE * sd, of, unit)}`;

/** What a figure is held to, and by what. */
export function sayLimit(
  { least, most, from }: FigureLimit,
  of: BenchFigure['unit'],
  unit: PressureUnit,
): string {
  const say = (value: number) => sayValue(value, of, unit);
  const range =
    least !== null && most !== null
      ? `${say(least)} to ${say(most)}`
      : most !== null
        ? `${say(most)} at most`
        : `${say(least ?? 0)} at least`;
  return `${range}: ${pressuresIn(from, unit)}`;
}

export const sayFigureTitle = ({ title }: Pick<BenchFigure, 'title'>, unit: PressureUnit): string =>
  pressuresIn(title, unit);

/** Figures of a reading in one line, as the log keeps them. */
export const sayFigures = (figures: readonly BenchFigure[], unit: PressureUnit): string =>
  figures
    .map((figure) => {
      const title = sayFigureTitle(figure, unit);
      return `${title.charAt(0).toLowerCase()}${title.slice(1)} ${sayNumber(figure, unit)}`;
    })
    .join('; ')
    .replace(/^./, (first) => first.toUpperCase())
    .slice(0, 200);

const IS: Readonly<Record<Beside['is'], string>> = {
  alike: 'alike',
  unlike: 'unlike',
  'cant-tell': 'too close to tell',
};

/** How figures stand beside the same ones read elsewhere: those that are unlike by name, or one word for all. */
export function sayBeside(
  figures: readonly BenchFigure[],
  beside: readonly Beside[],
  unit: PressureUnit,
): string {
  const named = beside.flatMap(({ id, by, is }) => {
    const figure = figures.find((each) => each.id === id);
    if (!figure || is !== 'unlike') return [];
    const title = sayFigureTitle(figure, unit);
    return [
      `${title.charAt(0).toLowerCase()}${title.slice(1)} ${sayValue(Math.abs(by.value), figure.unit, unit)} ${by.value > 0 ? 'more' : 'less'}`,
    ];
  });
  if (named.length > 0) return `unlike: ${named.join('; ')}`;
  return IS[beside.some(({ is }) => is === 'cant-tell') ? 'cant-tell' : 'alike'];
}

const NUMBERED: Readonly<Record<string, string>> = {
  supply: '1',
  primary: '21',
  secondary: '22',
};

/** What a port is called in this unit's school. */
export const sayPort = (name: string, school: School): string =>
  school === 'numbers' ? (NUMBERED[name] ?? name) : name;
