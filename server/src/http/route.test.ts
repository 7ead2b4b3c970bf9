import { v4, v7 } from 'uuid';
import { isUuid } from './route';

it('takes ids as RFC 9562 writes them, in either case, and nothing around them', () => {
  for (const id of [v4(), v7(), v7().toUpperCase()]) expect(isUuid(id)).toBe(true);
  for (const id of [
    ...[`${v7()}0`, `0${v7()}`, `${v7()}\n`, ` ${v7()}`, `urn:uuid:${v7()}`, `{${v7()}}`],
    ...[v7().replaceAll('-', ''), v7().slice(1), v7().replace(/.$/, 'g'), ''],
  ])
    expect(isUuid(id)).toBe(false);
});
