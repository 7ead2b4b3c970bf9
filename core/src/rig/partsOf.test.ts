import type { Unit } from '@keen-bleed/contract';
import { unitOf } from '../test/walk';
import { axlesOf, partsOf, wheelsOf } from './partsOf';

const group = (type: '20' | '30', springBrake: boolean, count = 2) =>
  ({ type, count, springBrake }) as Unit['chambers'][number];
const types = (groups: Unit['chambers']) =>
  groups.map(({ type, springBrake }) => `${type}${springBrake ? ' spring' : ''}`);
const ends = (...groups: Unit['chambers']) => {
  const { front, rear } = axlesOf(groups);
  return { front: types(front), rear: types(rear) };
};

describe('the axles of a vehicle', () => {
  it('that steer have no springs; the others stand behind, in their order', () => {
    expect(ends(group('20', false), group('30', true))).toEqual({
      front: ['20'],
      rear: ['30 spring'],
    });
    expect(ends(group('30', true), group('20', false), group('30', false))).toEqual({
      front: ['20', '30'],
      rear: ['30 spring'],
    });
  });

  it('have the first group in front where nothing has springs', () => {
    expect(ends(group('20', false), group('30', false), group('30', false))).toEqual({
      front: ['20'],
      rear: ['30', '30'],
    });
    expect(ends()).toEqual({ front: [], rear: [] });
  });

  it('have a left and a right wheel each, counted from the front across the groups of an end', () => {
    const groups = [group('20', false, 2), group('30', true, 3)];
    expect(wheelsOf('chambers', groups, 1).map(({ axle, side }) => `${axle} ${side}`)).toEqual([
      '1 left',
      '1 right',
      '2 left',
    ]);
    expect(wheelsOf('chambers', groups, 0).map(({ axle, side }) => `${axle} ${side}`)).toEqual([
      '0 left',
      '0 right',
    ]);
    expect(wheelsOf('chambers', groups, 2)).toEqual([]);
  });
});

describe('the valve of a trailer’s brakes', () => {
  const rolesOf = (...chambers: Unit['chambers']) =>
    partsOf({ ...unitOf('trailer', '22'), chambers }).map(({ id, role }) => `${id} ${role}`);

  it('is a relay where anything has springs, which hold it as the supply goes, else a relay-emergency valve', () => {
    const sprung = rolesOf(group('30', true));
    expect(sprung).toContain('relay relay');
    expect(sprung).toContain('spring-line line');
    const mixed = rolesOf(group('30', false), group('30', true));
    expect(mixed).toContain('relay relay');
    expect(mixed).toContain('spring-line line');
    const plain = rolesOf(group('30', false), group('30', false));
    expect(plain).toContain('relay relay-emergency');
    expect(plain).not.toContain('spring-line line');
  });

  it('is fed through a load-sensing valve where a group has one', () => {
    const sensing = { ...group('30', true), loadSensing: true };
    expect(rolesOf(group('30', true), sensing)).toContain('load-sensing load-sensing');
    expect(rolesOf(group('30', true))).not.toContain('load-sensing load-sensing');
  });
});
