import { Type } from '@sinclair/typebox';

/** A UUID in its canonical text form; clients make version 7, so that ids sort by time of making. */
export const Uuid = (title: string) => Type.String({ format: 'uuid', title });

/** A moment as whole milliseconds since 1970-01-01T00:00Z, as the maker's clock said it. */
export const AtMs = (title: string) =>
  Type.Integer({ minimum: 0, maximum: 8_640_000_000_000_000, title });

/** A short line a person writes; never empty once given. */
export const Line = (title: string, maxLength: number) =>
  Type.String({ minLength: 1, maxLength, pattern: '\\S', title });
