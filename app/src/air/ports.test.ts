import { makeDrawing } from './drawing';
import { madeUpUnit } from '../test/madeUpUnit';

const ports = 'numbers';
const { places } = makeDrawing().draw({
  unit: madeUpUnit('tractor', { ports }),
  towed: [madeUpUnit('trailer', { ports, number: '22' })],
});
const portOf = (id: string) => places.find((place) => place.id === id)?.ports;

describe('numbers of ports', () => {
  // [std: ISO 6786, value from memory]
  it('are the foot valve’s 21 and 22, and the trailer control valve’s 41, 42 and 43', () => {
    expect(portOf('rear signal')).toMatch(/^21/);
    expect(portOf('front signal')).toMatch(/^22/);
    expect(portOf('trailer foot signal')).toBe('41 · 42');
    expect(portOf('hand brake line')).toContain('43');
  });

  it('stand at every place that a device is joined to; a chamber, and a trailer’s springs, have none', () => {
    const without = places.filter((place) => place.ports === null).map(({ kind }) => kind);
    expect(portOf('spring line')).toBe('2 · 12');
    expect(portOf('#1 spring line')).toBeNull();
    expect(new Set(without)).toEqual(
      new Set(['service chamber', 'spring chamber', 'towed spring line']),
    );
  });
});
