/** Every coded answer of the server, with the HTTP status it goes out under. */
export const errorStatus = {
  'not-signed-in': 401,
  'wrong-sign-in': 401,
  'code-wanted': 401,
  'which-shop': 401,
  'too-many-tries': 429,
  'not-allowed': 403,
  'wrong-origin': 403,
  'https-wanted': 403,
  'not-found': 404,
  'wrong-shape': 422,
  'not-right': 422,
  'number-taken': 409,
  'name-taken': 409,
  'id-taken': 409,
  'changed-meanwhile': 409,
  'coupled-already': 409,
  'facts-missing': 409,
  'place-taken': 409,
  'photo-missing': 409,
  'log-closed': 409,
  'log-full': 409,
  'quota-full': 409,
  'already-set-up': 409,
  'not-readable': 400,
  'not-supported': 415,
  'no-such-range': 416,
  'too-large': 413,
  'database-unavailable': 503,
  'went-wrong': 500,
} as const;

export type ErrorCode = keyof typeof errorStatus;

/** One thing wrong with one field, in words a person can act on. */
export interface FieldProblem {
  /** Path of the field, parts joined by a dot: `tanks.0.volumeIn3`. */
  field: string;
  message: string;
}

/** The body of every answer that is not a success. */
export interface ErrorBody {
  code: ErrorCode;
  message: string;
  fields?: FieldProblem[];
}
