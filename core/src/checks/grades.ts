/** Grades by id, from nothing up. */
export const HEARD = ['quiet', 'hiss', 'blow'] as const;
export const SOAPED = ['dry', 'film', 'froth', 'stream', 'blown-off'] as const;
export const WATER = ['none', 'spoonful', 'cup', 'more'] as const;
export const WET = ['dry', 'mist', 'wet'] as const;

/** What each is called. */
export const gradeTitles: Readonly<Record<string, string>> = {
  quiet: 'quiet',
  hiss: 'a hiss',
  blow: 'it blows',
  dry: 'dry',
  film: 'a film that barely swells',
  froth: 'froth',
  stream: 'a stream of bubbles',
  'blown-off': 'blown off',
  none: 'nothing',
  spoonful: 'a spoonful',
  cup: 'a cup',
  more: 'more than a cup',
  mist: 'mist',
  wet: 'wet',
};

export const graded = (ids: readonly string[]) => ({
  kind: 'grade' as const,
  grades: ids.map((id) => ({ id, title: gradeTitles[id] ?? id })),
});
