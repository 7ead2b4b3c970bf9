import { demoWanted } from './demoWanted';

describe('the demo world, whose passwords are public', () => {
  it.each([
    [{ DEMO: '1' }, 'yes'],
    [{ DEMO: '1', HOST: '127.0.0.1' }, 'yes'],
    [{ DEMO: '1', HOST: '::1' }, 'yes'],
    [{ DEMO: '1', HOST: 'localhost' }, 'yes'],
    [{ DEMO: '1', HOST: '0.0.0.0' }, 'public'],
    [{ DEMO: '1', HOST: '192.168.1.20' }, 'public'],
    [{ DEMO: '1', HOST: '127.0.0.1.evil.test' }, 'public'],
    [{ DEMO: '1', COOKIE_SECURE: '1' }, 'public'],
    [{ DEMO: 'forced', HOST: '0.0.0.0' }, 'yes'],
    [{ DEMO: '0' }, 'no'],
    [{}, 'no'],
  ] as const)('is made, or not: %j, %s', (surroundings, wanted) => {
    expect(demoWanted(surroundings)).toBe(wanted);
  });
});
