/** Distances, px; everything stands on these. */
export const space = {
  hair: 4,
  near: 8,
  step: 12,
  gap: 18,
  wide: 28,
  far: 44,
} as const;

/** Least height of anything to press, px: for a bare finger, and for a glove on the run screen. */
export const target = { finger: 48, glove: 56 } as const;

/** Width, px, from which panes stand side by side. */
export const WIDE_FROM = 900;
