import { newUnitDraft } from '@keen-bleed/core';
import { RigModel, type KeptTable } from '@keen-bleed/core/diagnosis';
import { madeUpUnit } from '../test/madeUpUnit';
import type { FromServer } from './serverTable';
import { makeSuspecting, type Asked, type Told } from './suspecting';

const unit = { ...madeUpUnit(), ...newUnitDraft('trailer', 2015), number: '22', name: 'Trailer' };
const asked = (change: Partial<Asked> = {}): Asked => ({
  rig: { unit, towed: [] },
  rigKey: 'trailer 22',
  evidence: [{ kind: 'complaint', atMs: 1, complaintId: 'blows' }],
  failures: ['look:couplers/seals'],
  unit: 'psi',
  senses: null,
  state: null,
  ...change,
});

function made(kept: KeptTable | null = null, server: FromServer[] = []) {
  const store = { kept };
  // Each look at the clock is a slice later, so that every piece of work is told of.
  let ms = 0;
  const suspecting = makeSuspecting(
    {
      read: () => Promise.resolve(store.kept),
      keep: (_, table) => {
        store.kept = table;
        return Promise.resolve();
      },
      fromServer: () => Promise.resolve(server.shift() ?? 'none'),
    },
    () => (ms += 50),
  );
  return { suspecting, store };
}

describe('suspects in a thread of their own', () => {
  it('tell what they are at, then a ranking with the next check, and keep what was worked out', async () => {
    const { suspecting, store } = made();
    const all: Told[] = [];
    await suspecting.weigh(asked(), (told) => all.push(told));
    expect(all.some(({ working }) => working !== null)).toBe(true);
    const last = all.at(-1)!;
    expect(last.working).toBeNull();
    expect(last.rough).toBe(false);
    expect(last.suspects.length).toBeGreaterThan(2);
    expect(last.next.next).toBe('check');
    expect(last.next.next === 'check' && last.next.means.length).toBeGreaterThan(1);
    // The trade's table stands beside it.
    expect(last.table[0]?.found).toContain('Coupler seals');
    expect(Object.keys(store.kept?.answers ?? {}).length).toBeGreaterThan(10);
    // Another thread begins where this one ended: nothing is worked out twice, and it says the same.
    const again = made(store.kept);
    const told: Told[] = [];
    await again.suspecting.weigh(asked(), (each) => told.push(each));
    expect(told.every(({ working }) => working === null || working.share === 0)).toBe(true);
    expect(told.at(-1)?.suspects.map(({ chance }) => chance)).toEqual(
      last.suspects.map(({ chance }) => chance),
    );
  });

  it('leave off when something else is asked, and drop checks that the rig no longer has', async () => {
    const { suspecting } = made();
    const first: Told[] = [];
    const second: Told[] = [];
    const one = suspecting.weigh(asked(), (told) => first.push(told));
    const other = suspecting.weigh(
      asked({
        evidence: [
          {
            kind: 'answer',
            atMs: 1,
            checkId: '0/no such check',
            answer: { kind: 'number', value: 1 },
          },
        ],
      }),
      (told) => second.push(told),
    );
    await Promise.all([one, other]);
    expect(first.some(({ working }) => working === null)).toBe(false);
    expect(second.at(-1)?.working).toBeNull();
  });

  it('are helped from the other end: what a second thread has worked out is not worked out again', async () => {
    const truck = { ...madeUpUnit(), ...newUnitDraft('truck', 2015), number: '12' };
    const rig = { unit: truck, towed: [] };
    const handed: KeptTable[] = [];
    const helper = made().suspecting;
    await new Promise<void>((done) => {
      void helper.help(rig, 'truck 12', (table) => {
        handed.push(table);
        if (handed.length === 2) {
          helper.stop();
          done();
        }
      });
    });
    const faults = Object.keys(handed.at(-1)?.runs ?? {}).filter((key) => key !== 'sound');
    expect(faults.length).toBeGreaterThan(2);
    // It began at the end: the compressor, where the other begins, is not among them.
    expect(faults.some((key) => key.startsWith('compressor worn'))).toBe(false);
    const model = new RigModel(rig);
    model.learn(handed.at(-1)!);
    const [first] = faults;
    const [id = '', severity] = first!.split(' @');
    expect(model.hasRunOf(id, Number(severity))).toBe(true);
  });

  it('say what to do first where nothing is known', async () => {
    const { suspecting } = made();
    const all: Told[] = [];
    await suspecting.weigh(asked({ evidence: [], failures: [] }), (told) => all.push(told));
    const { next } = all.at(-1)!;
    expect(next.next === 'check' || next.text.includes('Make a run')).toBe(true);
  });

  it('take what the shop’s server has worked out, once it has', async () => {
    const truck = { ...madeUpUnit(), ...newUnitDraft('truck', 2015), number: '12' };
    const rig = { unit: truck, towed: [] };
    const model = new RigModel(rig);
    const shown = model.run(null);
    // A table as the server would give it: here every fault shows what a sound rig does.
    const table: KeptTable = {
      runs: Object.fromEntries<KeptTable['runs'][string]>([
        ['sound', shown],
        ...model.faults.flatMap(({ id }) =>
          [0.4, 0.85].map((at): [string, typeof shown] => [`${id} @${at}`, shown]),
        ),
      ]),
      answers: {},
      soundRuns: Array.from({ length: 20 }, () => shown),
      soundAnswers: [],
    };
    const { suspecting } = made(null, ['not yet', table]);
    const whole = await new Promise<Told>((done) => {
      void suspecting.weigh(
        asked({
          rig,
          rigKey: 'truck 12',
          evidence: [{ kind: 'run', atMs: 1, figures: { 'cut-out': 150 } }],
          failures: [],
        }),
        (told) => {
          if (told.rough) return;
          suspecting.stop();
          done(told);
        },
      );
    });
    // By its own reckoning the governor would stand far before all others; by the server's table none does.
    expect(whole.suspects[0]?.chance ?? 0).toBeLessThan(0.2);
  });

  it('go on by themselves where the server has nothing of the rig', async () => {
    const { suspecting } = made(null, ['none']);
    const all: Told[] = [];
    await suspecting.weigh(asked(), (told) => all.push(told));
    expect(all.at(-1)?.working).toBeNull();
  });
});
