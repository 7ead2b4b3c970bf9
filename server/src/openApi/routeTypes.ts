import * as contract from '@keen-bleed/contract';
import type { Answers, Route } from '../http/route';

/** The contract's own name of an answer's shape. */
function typeOf(answers: Answers, route: string): string {
  if (answers === 'nothing') return 'undefined';
  if (answers === 'file' || answers === 'stream') return 'never';
  const [name] = Object.entries(contract).find(([, value]) => value === answers) ?? [];
  if (name === undefined) throw new Error(`${route}: its answer's schema is not in the contract`);
  return `Static<typeof contract.${name}>`;
}

const bodyOf = ({ body }: Route): string => {
  if (body === null) return 'undefined';
  return body === 'image' ? 'Picture' : `Shape<'${body}'>`;
};

/** TypeScript that says of every route what it takes and answers: what the app asks is held to it. */
export function routeTypesOf(routes: readonly Route[]): string {
  const lines = routes.map((each) => {
    const name = `${each.method.toUpperCase()} ${each.path.replace(/:\w+/g, '${string}')}`;
    return `  [\`${name}\`, ${bodyOf(each)}, ${typeOf(each.answers, name)}],`;
  });
  return `/* Written from the server's routes by \`npm run route-types\`; a test holds it to them. */
import type { Static } from '@sinclair/typebox';
import type { check } from './check';
import type * as contract from './index';
import type { SchemaName } from './schemas';

type Shape<N extends SchemaName> = Extract<ReturnType<typeof check<N>>, { ok: true }>['value'];

/** A picture's bytes, as a browser hands them over. */
interface Picture {
  readonly type: string;
  readonly size: number;
}

/** Of every route: how and where it is asked below its version, what it takes, what it answers; never is no record. */
export type RouteTypes = [
${lines.join('\n')}
];
`;
}
