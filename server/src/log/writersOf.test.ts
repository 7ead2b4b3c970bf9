import { sayBy } from './writersOf';

const takenOverIn = (...lanes: string[]) => ({
  takeOvers: lanes.map((lane) => ({ lane })) as unknown as Parameters<typeof sayBy>[1]['takeOvers'],
});
const writers = { a: 'Idris Fenn', b: 'Maren Osk', c: 'Paula Quill' };

it('names who made a run, and who took it over, each once', () => {
  expect(sayBy('Idris Fenn', takenOverIn(), writers)).toBe('Idris Fenn');
  expect(sayBy('Idris Fenn', takenOverIn('b'), writers)).toBe(
    'Idris Fenn, taken over by Maren Osk',
  );
  expect(sayBy('Idris Fenn', takenOverIn('b', 'c', 'b'), writers)).toBe(
    'Idris Fenn, taken over by Maren Osk and Paula Quill',
  );
});

it('does not say that somebody took over what they had opened, nor who a lane without a name is', () => {
  expect(sayBy('Idris Fenn', takenOverIn('a'), writers)).toBe('Idris Fenn');
  expect(sayBy('Idris Fenn', takenOverIn('b', 'a'), writers)).toBe(
    'Idris Fenn, taken over by Maren Osk',
  );
  expect(sayBy('Idris Fenn', takenOverIn('gone'), writers)).toBe('Idris Fenn');
});
