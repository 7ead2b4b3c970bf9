import { unitsOf, type RigUnderTest } from './rigUnderTest';

/**
 * What a rig's air depends on, as one key: which units, and how each of them is described now, with what was found of its
 * parts and lines.
 */
export const rigKey = (rig: RigUnderTest): string =>
  unitsOf(rig)
    .map(({ id, revision, parts = [], lines = [] }) =>
      [
        id,
        revision,
        // What was found on a device counts before the server has made a revision of it.
        ...[...parts, ...lines].map(
          ({ foundAtMs, standing }) => `${standing[0] ?? ''}${foundAtMs}`,
        ),
      ].join('/'),
    )
    .join(' ');
