import { ApiError } from './apiError';

/** The answer to one field that does not fit with what the shop keeps. */
export const fieldError = (field: string, message: string): ApiError =>
  new ApiError('not-right', message, [{ field, message }]);
