/** The colours of one theme. Names say what a colour is for. */
export interface Palette {
  /** Behind everything. */
  ground: string;
  /** A ground that stands a little off: inputs, a pressed row. */
  raised: string;
  ink: string;
  /** Text of less weight; still AAA on the ground. */
  quiet: string;
  /** Lines between things. */
  rule: string;
  /** Borders a hand has to find: AA for parts of an interface. */
  edge: string;
  accent: string;
  onAccent: string;
  pass: string;
  fail: string;
  /** The hatch of a window on the ladder. */
  hatch: string;
  /** The air circuits, as the trade paints them; nothing else wears these. */
  supplyAir: string;
  serviceAir: string;
  parkAir: string;
}

/** The dark theme, for the shop floor and the cab at night. Ink, quiet and signs are 7:1 on the ground. */
export const shopPalette: Palette = {
  ground: '#12161A',
  raised: '#1D2329',
  ink: '#F3F0E7',
  quiet: '#A6B0B7',
  rule: '#323B42',
  edge: '#77828B',
  accent: '#C3A6FF',
  onAccent: '#1B1230',
  pass: '#43CDB0',
  fail: '#FF9166',
  hatch: '#56626B',
  supplyAir: '#F0665E',
  serviceAir: '#62A8F5',
  parkAir: '#E8C341',
};

/** The light theme, for the yard in daylight. */
export const yardPalette: Palette = {
  ground: '#F5F2EA',
  raised: '#E9E5DA',
  ink: '#171C20',
  quiet: '#454E55',
  rule: '#CFC9BC',
  edge: '#767066',
  accent: '#5A37B4',
  onAccent: '#FFFFFF',
  pass: '#005B4A',
  fail: '#932E07',
  hatch: '#A39C8D',
  supplyAir: '#B3261E',
  serviceAir: '#1F5FAE',
  parkAir: '#8A6A00',
};
