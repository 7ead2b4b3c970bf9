import type { AnyFact, AnyHeader } from '@keen-bleed/contract';
import fc from 'fast-check';
import { createHash } from 'node:crypto';
import { digestOf } from './digest';

const sha256 = (text: string) => createHash('sha256').update(text, 'utf8').digest('hex');
const header = { kind: 'job', id: 'j', v: 1 } as unknown as AnyHeader;
const fact = (lane: string, seq: number, more: object = {}) =>
  ({ seq, lane, id: `${lane}${seq}`, kind: 'note', ...more }) as unknown as AnyFact;

/* Canonical JSON written by hand: members by their names, nothing between them (RFC 8785, 3.2). */
const HEADER = '{"id":"j","kind":"job","v":1}';
const canonical = (lane: string, seq: number) =>
  `{"id":"${lane}${seq}","kind":"note","lane":"${lane}","seq":${seq}}`;

it('is the hash of the header, and for each fact of the head so far, a line feed and the fact', () => {
  expect(digestOf(header, [], {})).toBe(sha256(HEADER));
  const one = sha256(`${sha256(HEADER)}\n${canonical('a', 1)}`);
  expect(digestOf(header, [fact('a', 1)], { a: 1 })).toBe(one);
  const two = sha256(`${one}\n${canonical('a', 2)}`);
  const three = sha256(`${two}\n${canonical('b', 1)}`);
  const facts = [fact('b', 1), fact('a', 2), fact('a', 1)];
  expect(digestOf(header, facts, { a: 2, b: 1 })).toBe(three);
});

it('takes of each lane what was known of it, and nothing of a lane that was not', () => {
  const facts = [fact('a', 1), fact('a', 2), fact('b', 1)];
  expect(digestOf(header, facts, { a: 1 })).toBe(digestOf(header, [fact('a', 1)], { a: 1 }));
  expect(digestOf(header, facts, {})).toBe(sha256(HEADER));
});

it('is the same in whatever order facts came in and whenever the server took them, and another for any other fact', () => {
  const facts = ['a', 'b', 'c'].flatMap((lane) => [1, 2, 3].map((seq) => fact(lane, seq)));
  const knew = { a: 3, b: 3, c: 3 };
  const head = digestOf(header, facts, knew);
  fc.assert(
    fc.property(
      fc.shuffledSubarray(facts, { minLength: 9 }),
      fc.nat(),
      (shuffled, receivedAtMs) => {
        expect(
          digestOf(
            header,
            shuffled.map((each) => ({ ...each, receivedAtMs })),
            knew,
          ),
        ).toBe(head);
      },
    ),
  );
  expect(digestOf(header, [...facts.slice(1), fact('a', 1, { text: 'x' })], knew)).not.toBe(head);
  expect(digestOf({ ...header, id: 'k' }, facts, knew)).not.toBe(head);
});
