import {
  errorStatus,
  type ErrorBody,
  type ErrorCode,
  type FieldProblem,
} from '@keen-bleed/contract';

/** An answer that is not a success, with its code; everything else thrown is a plain 500. */
export class ApiError extends Error {
  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly fields?: FieldProblem[],
  ) {
    super(message);
  }

  get status(): number {
    return errorStatus[this.code];
  }

  get body(): ErrorBody {
    return {
      code: this.code,
      message: this.message,
      ...(this.fields ? { fields: this.fields } : {}),
    };
  }
}

/** The answer to a record that is not there, or is another shop's: the two look the same from outside. */
export function notFound(what: string): ApiError {
  return new ApiError('not-found', `There is no such ${what} in this shop.`);
}
