import Ajv from 'ajv';
import addFormats from 'ajv-formats';
import { check } from './check';
import { checkForm } from './forms';
import { schemas } from './schemas';
import { RunExportSchema } from './log/run/header';
import { errorStatus } from './errors';

const id = '018f0000-0000-7000-8000-000000000001';
const mark = {
  id,
  lane: id,
  seq: 1,
  atMs: 1,
  offsetMs: null,
  v: 2,
  kind: 'mark',
  stepId: 'cut-out',
  key: 'cut-out',
  readingPsi: 120,
  resolutionPsi: 1,
  method: 'read',
};
const fieldsOf = (name: Parameters<typeof check>[0], value: unknown) => {
  const checked = check(name, value);
  return checked.ok ? [] : checked.fields;
};

describe('a request of the wrong shape', () => {
  it('is told each field, and what would be right', () => {
    expect(fieldsOf('signIn', { signInName: '', password: 5, extra: true })).toEqual(
      expect.arrayContaining([
        { field: 'signInName', message: 'Sign-in name is missing.' },
        { field: 'password', message: 'Password must be of type string.' },
        { field: 'extra', message: 'extra is not a field of this record.' },
      ]),
    );
  });

  it('is told the path of a field deep inside', () => {
    const draft = { tanks: [{ role: 'primary', volumeIn3: 3 }] };
    expect(fieldsOf('unitDraft', draft)).toContainEqual({
      field: 'tanks.0.volumeIn3',
      message: 'Tank volume must be at least 50.',
    });
    expect(fieldsOf('unitDraft', draft)).toContainEqual({
      field: 'number',
      message: 'Unit number is missing.',
    });
  });

  it('is told only of the kind of fact it claims to be', () => {
    expect(fieldsOf('runFact', { ...mark, readingPsi: 'high' })).toEqual([
      { field: 'readingPsi', message: 'Reading must be of type number.' },
    ]);
    expect(fieldsOf('runFact', { ...mark, kind: 'wish' })).toEqual([
      { field: 'kind', message: 'Run fact: "wish" is no known kind.' },
    ]);
    // A visit's note is at a place; a run's is not.
    const note = { ...mark, kind: 'note', text: 'x', at: null };
    for (const field of ['stepId', 'key', 'readingPsi', 'resolutionPsi', 'method'] as const) {
      delete (note as Partial<typeof mark>)[field];
    }
    expect(fieldsOf('visitFact', note)).toEqual([]);
    expect(fieldsOf('runFact', note).map((each) => each.field)).toContain('at');
  });

  it.each([null, [], 'text', 7, {}])('is refused whole when it is %p', (body) => {
    for (const name of Object.keys(schemas)) {
      // A list is read from its beginning where nothing is said.
      const saysNothing = name === 'pageQuery' && JSON.stringify(body) === '{}';
      expect([name, check(name as 'signIn', body).ok]).toEqual([name, saysNothing]);
    }
  });

  it('takes no infinity, no NaN and no fraction of a place', () => {
    expect(check('runFact', mark).ok).toBe(true);
    expect(check('runFact', { ...mark, readingPsi: Infinity }).ok).toBe(false);
    expect(check('runFact', { ...mark, readingPsi: NaN }).ok).toBe(false);
    expect(check('runFact', { ...mark, seq: 1.5 }).ok).toBe(false);
    expect(check('runFact', { ...mark, id: 'x' }).ok).toBe(false);
  });
});

describe('the compiled validators', () => {
  it('say in the browser what they say on the server', () => {
    const body = { signInName: 'x', name: '', role: 'boss', password: 'short', id };
    const onServer = check('createPerson', body);
    expect(onServer.ok ? [] : onServer.fields).toEqual(checkForm('createPerson', body));
    expect(
      checkForm('createPerson', body)
        .map((each) => each.field)
        .sort(),
    ).toEqual(['name', 'password', 'role', 'signInName']);
  });

  it('agree with validators compiled afresh, so that none is out of date', () => {
    const ajv = new Ajv({ discriminator: true, strict: false });
    addFormats(ajv, ['uuid']);
    const fresh = ajv.compile(schemas.runFact);
    for (const value of [
      mark,
      { ...mark, method: 'guess' },
      { ...mark, readingPsi: 3000 },
      { id, lane: id, seq: 1, atMs: 1, offsetMs: 5, v: 2, kind: 'close', how: 'complete' },
    ]) {
      expect(check('runFact', value).ok).toBe(fresh(value));
    }
  });
});

it('exports the run’s schema as plain JSON Schema, with an id', () => {
  const plain = JSON.parse(JSON.stringify(RunExportSchema)) as { $id: string; properties: object };
  expect(plain.$id).toBe('keen-bleed-run-export-2');
  expect(Object.keys(plain.properties)).toEqual(
    expect.arrayContaining(['format', 'header', 'facts', 'timeUnsure', 'outcome', 'caution']),
  );
});

it('gives every error code a status that is an error', () => {
  for (const status of Object.values(errorStatus)) expect(status).toBeGreaterThanOrEqual(400);
});
