import { overlap } from './labels';
import type { Box, Plan } from './plan';

/** A drawing as it should be, crossings apart: those are under one a line. */
export const GOOD_PLAN: Omit<PlanMeasures, 'crossingsALine'> = {
  through: [],
  forced: 0,
  labelsOverLabels: 0,
  labelsOverSymbols: 0,
  targetsOverTargets: 0,
  smallTargets: 0,
  outside: 0,
  askew: 0,
};

/** What is measured of a drawing: counts of what should not be, and crossings a line. */
export interface PlanMeasures {
  /** Lines that run through a symbol, each with its symbol. */
  through: string[];
  forced: number;
  labelsOverLabels: number;
  labelsOverSymbols: number;
  targetsOverTargets: number;
  /** Targets under 44 px. */
  smallTargets: number;
  outside: number;
  /** Lines that are not at right angles. */
  askew: number;
  crossingsALine: number;
}

/** Measures a drawing. */
export function measured({ symbols, lines, units, width, height }: Plan): PlanMeasures {
  const inside = ({ x, y }: { x: number; y: number }, box: Box) =>
    x > box.x + 0.5 &&
    x < box.x + box.width - 0.5 &&
    y > box.y + 0.5 &&
    y < box.y + box.height - 0.5;
  const labels = [
    ...symbols.flatMap(({ label, role }) => (label && role !== 'tank' ? [label] : [])),
    ...units.flatMap(({ axles }) => axles.map(({ label }) => label)),
  ];
  const segments = lines.map(({ points }) =>
    points.slice(1).map((to, n) => ({ from: points[n]!, to })),
  );
  const through = lines.flatMap((line, n) =>
    segments[n]!.flatMap(({ from, to }) =>
      symbols
        .filter(({ box }) => {
          const steps = Math.max(
            2,
            Math.ceil((Math.abs(to.x - from.x) + Math.abs(to.y - from.y)) / 2),
          );
          return Array.from({ length: steps - 1 }, (_, k) => (k + 1) / steps).some((t) =>
            inside({ x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t }, box),
          );
        })
        .map(({ key }) => `${line.key} through ${key}`),
    ),
  );
  // Where lines of one air share their way, what crosses it crosses once.
  const crossings = new Set(
    segments.flatMap((some, n) =>
      segments
        .slice(n + 1)
        .flatMap((others, m) =>
          lines[n]!.net === lines[n + 1 + m]!.net
            ? []
            : some.flatMap((one) => others.flatMap((other) => cross(one, other) ?? [])),
        ),
    ),
  ).size;
  const overlapping = (boxes: readonly Box[]) =>
    boxes.flatMap((one, n) => boxes.slice(n + 1).filter((other) => overlap(one, other))).length;
  return {
    through,
    forced: lines.filter(({ forced }) => forced).length,
    labelsOverLabels: overlapping(labels),
    labelsOverSymbols: labels.flatMap((label) => symbols.filter(({ box }) => overlap(label, box)))
      .length,
    targetsOverTargets: overlapping(symbols.map(({ target }) => target)),
    smallTargets: symbols.filter(({ target }) => target.width < 44 || target.height < 44).length,
    outside: symbols.filter(
      ({ box }) =>
        box.x < 0 || box.y < 0 || box.x + box.width > width || box.y + box.height > height,
    ).length,
    askew: lines.filter((_, n) =>
      segments[n]!.some(({ from, to }) => from.x !== to.x && from.y !== to.y),
    ).length,
    crossingsALine: crossings / Math.max(1, lines.length),
  };
}

interface Segment {
  from: { x: number; y: number };
  to: { x: number; y: number };
}

/** Where two segments at right angles cross between their ends; null where they do not. */
function cross(a: Segment, b: Segment): string | null {
  const flat = (s: Segment) => s.from.y === s.to.y;
  if (flat(a) === flat(b)) return null;
  const [across, down] = flat(a) ? [a, b] : [b, a];
  const [left, right] = [across.from.x, across.to.x].sort((x, y) => x - y);
  const [top, foot] = [down.from.y, down.to.y].sort((x, y) => x - y);
  const [x, y] = [down.from.x, across.from.y];
  return x > left! && x < right! && y > top! && y < foot! ? `${x} ${y}` : null;
}
