import type { LogKindName, LogRecord } from '@keen-bleed/contract';
import type { AnswerOf } from './routes';

/**
 * A log's record as its kind has it. The route says of header and facts only what every kind shares; each was held to
 * its own kind's shape when it was taken in.
 */
export const asLogRecord = <K extends LogKindName>(
  answer: AnswerOf<'GET', `/api/v1/logs/${string}`>,
): LogRecord<K> => answer as unknown as LogRecord<K>;
