import { glossary } from './glossary';

const terms = glossary.flatMap((group) => group.terms);

describe('the glossary', () => {
  it('holds each term once', () => {
    const names = terms.map(({ term }) => term.toLowerCase());
    expect(new Set(names).size).toBe(names.length);
  });

  it('says what each means in one or two whole sentences', () => {
    for (const { means } of terms) expect(means).toMatch(/^[A-Z].{10,120}\.$/);
  });
});
