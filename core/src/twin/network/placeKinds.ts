/** Which of the trade's three colours a place wears. */
export type Circuit = 'supply' | 'service' | 'park';

/** What a kind of place is. */
export interface PlaceInfo {
  circuit: Circuit;
  /** Numbers of the ports it is joined to [std: ISO 6786, value from memory]; none where it has none. */
  ports?: string;
  /** It is a tank: air is kept in it. */
  isTank?: true;
}

/**
 * What a place of the air can be. In the numbered-port school: 1 supply, 2 delivery, 4 control, a second digit for the
 * circuit.
 */
export const placeKinds = {
  'shop air': { circuit: 'supply', isTank: true },
  'shop hose': { circuit: 'supply' },
  'shop service hose': { circuit: 'service' },
  'discharge line': { circuit: 'supply', ports: '2 · 1' },
  dryer: { circuit: 'supply', ports: '1' },
  'purge volume': { circuit: 'supply', ports: '22' },
  'governor line': { circuit: 'supply', ports: '4' },
  'supply tank': { circuit: 'supply', ports: '21 · 1', isTank: true },
  'primary tank': { circuit: 'supply', ports: '21 · 11', isTank: true },
  'secondary tank': { circuit: 'supply', ports: '22 · 12', isTank: true },
  'dash feed': { circuit: 'supply', ports: '23 · 1' },
  'rear signal': { circuit: 'service', ports: '21 · 41' },
  'front signal': { circuit: 'service', ports: '22 · 42' },
  'front load control': { circuit: 'service', ports: '4' },
  'front delivery': { circuit: 'service', ports: '2' },
  'rear relay control': { circuit: 'service', ports: '4' },
  'rear delivery': { circuit: 'service', ports: '2' },
  'park line': { circuit: 'park', ports: '21 · 4' },
  'park relay control': { circuit: 'park', ports: '4' },
  'modulating signal': { circuit: 'service', ports: '4' },
  'spring line': { circuit: 'park', ports: '2 · 12' },
  'hand brake line': { circuit: 'park', ports: '22 · 43' },
  'trailer foot signal': { circuit: 'service', ports: '41 · 42' },
  'hand signal': { circuit: 'service', ports: '43' },
  'trailer signal': { circuit: 'service', ports: '4' },
  'trailer service line': { circuit: 'service', ports: '22' },
  'trailer supply line': { circuit: 'supply', ports: '21' },
  'service chamber': { circuit: 'service' },
  'spring chamber': { circuit: 'park' },
  'towed supply line': { circuit: 'supply', ports: '1' },
  'towed service line': { circuit: 'service', ports: '4' },
  'towed tank': { circuit: 'supply', ports: '1', isTank: true },
  'towed relay control': { circuit: 'service', ports: '4' },
  'towed load control': { circuit: 'service', ports: '4' },
  'towed delivery': { circuit: 'service', ports: '2' },
  // A trailer's springs hang on its supply, not on a relay with numbers of its own.
  'towed spring line': { circuit: 'park' },
  'accessory line': { circuit: 'supply', ports: '2' },
  accessory: { circuit: 'supply' },
  // Where a line is missing, or ends at nothing.
  'loose end': { circuit: 'supply' },
  'rear supply': { circuit: 'supply', ports: '1' },
  'rear service': { circuit: 'service', ports: '4' },
} as const satisfies Record<string, PlaceInfo>;

/** A kind of place by its name. */
export type PlaceKind = keyof typeof placeKinds;

/** What a kind of place is. */
export const placeInfo = (kind: PlaceKind): PlaceInfo => placeKinds[kind];
