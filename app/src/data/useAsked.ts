import useSWR, { type SWRConfiguration, type SWRResponse } from 'swr';
import type { RequestProblem } from '../wire/api';
import type { AnswerOf } from '../wire/routes';

export type Found<T> = SWRResponse<T, RequestProblem>;

/** What a path of the server answers, kept and asked for again; pass null where it is not wanted yet. */
export const useAsked = <P extends string>(
  path: P | null,
  options: SWRConfiguration<AnswerOf<'GET', P>, RequestProblem> = {},
): Found<AnswerOf<'GET', P>> => useSWR<AnswerOf<'GET', P>, RequestProblem>(path, options);
