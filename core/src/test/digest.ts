import hashOf from 'imurmurhash';

/** A short mark of what a value holds: another one where anything in it has changed. */
export function digest(value: unknown): string {
  const text = JSON.stringify(value, (_, each: unknown) =>
    each instanceof Map ? [...each] : each,
  );
  return [1, 2]
    .map((seed) =>
      hashOf(text ?? '', seed)
        .result()
        .toString(36),
    )
    .join('');
}
