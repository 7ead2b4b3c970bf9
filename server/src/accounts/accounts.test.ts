import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { makeStaff, openTestShop, testPassword, type Staff, type TestShop } from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
});
afterAll(() => shop.close());

describe('the first account', () => {
  const first = { shopName: 'Depot', name: 'Lea', signInName: 'lea', password: 'long enough now' };

  it.each(['Tarn Gap Works', 'Tarn.Gap.Works 2026', 'Leander Leander', 'leander.weir'])(
    'is not opened by a password made of its own names: %s',
    async (password) => {
      const own = { shopName: 'Tarn Gap Works', name: 'Leander Weir', signInName: 'leander.weir' };
      const refused = await request(shop.app)
        .post('/api/set-up')
        .send({ ...own, password })
        .expect(422);
      expect((refused.body as { fields: { field: string }[] }).fields).toMatchObject([
        { field: 'password' },
      ]);
    },
  );

  it('is asked for while there is none, and made once', async () => {
    await request(shop.app)
      .get('/api/set-up')
      .expect(200, { needsFirstLead: true, needsCode: false });
    const answers = await Promise.all(
      [1, 2, 3].map(() => request(shop.app).post('/api/set-up').send(first)),
    );
    expect(answers.map((each) => each.status).sort()).toEqual([201, 409, 409]);
    await request(shop.app)
      .get('/api/set-up')
      .expect(200, { needsFirstLead: false, needsCode: false });
    const made = answers.find((each) => each.status === 201);
    expect(made?.body).toMatchObject({ name: 'Lea', role: 'lead', shopName: 'Depot' });
  });

  it('is told which field is wrong', async () => {
    const short = await request(shop.app)
      .post('/api/set-up')
      .send({ ...first, password: 'short' })
      .expect(422);
    expect(short.body).toMatchObject({
      code: 'wrong-shape',
      fields: [{ field: 'password', message: 'Password needs at least 10 characters.' }],
    });
  });
});

describe('what a shop says of itself', () => {
  let others: Staff;
  beforeAll(async () => {
    staff = await makeStaff(shop, 'z');
    others = await makeStaff(shop, 'y');
  });

  it('is a lead’s to change, and counts at once for everybody in it and for nobody else', async () => {
    const edit = { timeZone: 'Europe/Berlin', name: 'Depot East' };
    await staff.technician.patch('/api/shop').send(edit).expect(403);
    await staff.viewer.patch('/api/shop').send(edit).expect(403);
    const answer = await staff.lead.patch('/api/shop').send(edit).expect(200);
    expect(answer.body).toMatchObject({ shopName: 'Depot East', timeZone: 'Europe/Berlin' });
    const technician = await staff.technician.get('/api/me').expect(200);
    expect(technician.body).toMatchObject({ shopName: 'Depot East', demo: false });
    const other = await others.lead.get('/api/me').expect(200);
    expect(other.body).toMatchObject({ timeZone: 'UTC' });
  });

  it('says how often its ears and soap err, in figures that can be, or leaves them to the house', async () => {
    const senses = {
      ...{ heardQuietScfm: 0.2, heardRunningScfm: 0.8, missed: 0.15, imagined: 0.03 },
      ...{ soapMisses: 0.1, soapOff: 0.25, lookWrong: 0.05 },
    };
    await staff.technician.patch('/api/shop').send({ senses }).expect(403);
    const kept = await staff.lead.patch('/api/shop').send({ senses }).expect(200);
    expect(kept.body).toMatchObject({ senses });
    const refused = await staff.lead
      .patch('/api/shop')
      .send({ senses: { ...senses, missed: 1.5 } })
      .expect(422);
    expect(refused.body).toMatchObject({
      fields: [{ field: expect.stringContaining('missed') as string }],
    });
    const house = await staff.lead.patch('/api/shop').send({ senses: null }).expect(200);
    expect(house.body).toMatchObject({ senses: null });
  });

  it('has a time zone that exists', async () => {
    const answer = await staff.lead.patch('/api/shop').send({ timeZone: 'Mars/Base' }).expect(422);
    expect(answer.body).toMatchObject({ fields: [{ field: 'timeZone' }] });
  });
});

describe('signing in', () => {
  beforeAll(async () => {
    staff = await makeStaff(shop, 'a');
  });
  const signIn = (signInName: string, password: string) =>
    request(shop.app).post('/api/sign-in').send({ signInName, password });

  it('answers an unknown name and a wrong password alike', async () => {
    const unknown = await signIn('nobody', 'whatever it is').expect(401);
    const wrong = await signIn(staff.names.lead, 'whatever it is').expect(401);
    expect(unknown.body).toEqual(wrong.body);
  });

  it('sets one cookie that scripts cannot read and other sites do not send', async () => {
    const answer = await signIn(staff.names.lead.toUpperCase(), testPassword).expect(200);
    const cookies = answer.headers['set-cookie'] as unknown as string[];
    // The other says that this device is known, and admits nobody.
    expect(cookies).toHaveLength(2);
    for (const each of cookies) expect(each).toMatch(/HttpOnly; SameSite=Lax$/);
    const cookie = cookies.find((each) => each.startsWith('kb.sid'));
    expect(cookie).toMatch(/^kb\.sid=.*HttpOnly; SameSite=Lax$/);
    expect(JSON.stringify(answer.body)).not.toContain('argon2');
  });

  it('takes a new session id each time, so that one planted beforehand is worth nothing', async () => {
    const agent = request.agent(shop.app);
    const sid = async () =>
      (
        (
          await agent
            .post('/api/sign-in')
            .send({ signInName: staff.names.lead, password: testPassword })
        ).headers['set-cookie'] as unknown as string[]
      ).find((each) => each.startsWith('kb.sid'));
    expect(await sid()).not.toEqual(await sid());
  });

  it('ends on this device, or on all', async () => {
    const [one, two] = [request.agent(shop.app), request.agent(shop.app)];
    for (const agent of [one, two])
      await agent
        .post('/api/sign-in')
        .send({ signInName: staff.names.viewer, password: testPassword })
        .expect(200);
    await one.post('/api/sign-out').expect(204);
    await one.get('/api/me').expect(401);
    await two.get('/api/me').expect(200);
    await staff.viewer.post('/api/sign-out-everywhere').expect(204);
    await two.get('/api/me').expect(401);
    await staff.technician.get('/api/me').expect(200);
  });

  it('is slowed down after too many wrong tries on a name, and only on that one', async () => {
    const strict = await openTestShop({ signInTries: 3 });
    const others = await makeStaff(strict, 'strict');
    const tryIt = (name: string, password: string) =>
      request(strict.app).post('/api/sign-in').send({ signInName: name, password });
    for (let n = 0; n < 3; n += 1) await tryIt(others.names.lead, 'wrong').expect(401);
    await tryIt(others.names.lead, testPassword).expect(429);
    await tryIt(others.names.technician, testPassword).expect(200);
    await strict.close();
  });
});

describe('a device that somebody signed in on before', () => {
  it('is not locked by wrong tries on the name elsewhere, and is slowed by its own', async () => {
    const strict = await openTestShop({ signInTries: 3 });
    const people = await makeStaff(strict, 'device');
    const own = request.agent(strict.app);
    const tryOn = (agent: ReturnType<typeof request.agent>, name: string, password: string) =>
      agent.post('/api/sign-in').send({ signInName: name, password });
    await tryOn(own, people.names.technician, testPassword).expect(200);
    await own.post('/api/sign-out').expect(204);
    // A stranger, from the same address even.
    const stranger = request.agent(strict.app);
    for (let n = 0; n < 3; n += 1)
      await tryOn(stranger, people.names.technician, 'wrong').expect(401);
    await tryOn(stranger, people.names.technician, testPassword).expect(429);
    await tryOn(own, people.names.technician, testPassword).expect(200);
    await own.post('/api/sign-out').expect(204);
    for (let n = 0; n < 3; n += 1) await tryOn(own, people.names.technician, 'wrong').expect(401);
    await tryOn(own, people.names.technician, testPassword).expect(429);
    // Known for one name it is a stranger to the others.
    for (let n = 0; n < 3; n += 1) await tryOn(own, people.names.lead, 'wrong').expect(401);
    await tryOn(stranger, people.names.lead, testPassword).expect(429);
    await strict.close();
  });

  it('is not locked by somebody who tries many names at the shop’s own address', async () => {
    const strict = await openTestShop({ signInTries: 2 });
    const people = await makeStaff(strict, 'address');
    const own = request.agent(strict.app);
    const signIn = (agent: ReturnType<typeof request.agent>, name: string, password: string) =>
      agent.post('/api/sign-in').send({ signInName: name, password });
    await signIn(own, people.names.viewer, testPassword).expect(200);
    const stranger = request.agent(strict.app);
    for (let n = 0; n < 10; n += 1) await signIn(stranger, `nobody${n}`, 'wrong').expect(401);
    await signIn(stranger, people.names.lead, testPassword).expect(429);
    await signIn(own, people.names.viewer, testPassword).expect(200);
    await strict.close();
  });

  it('is not known by a cookie that somebody wrote', async () => {
    const strict = await openTestShop({ signInTries: 2 });
    const people = await makeStaff(strict, 'forged');
    for (let n = 0; n < 2; n += 1)
      await request(strict.app)
        .post('/api/sign-in')
        .set('Cookie', `kb.device=made-up-${n}.0123456789abcdef.AAAA`)
        .send({ signInName: people.names.lead, password: 'wrong' })
        .expect(401);
    await request(strict.app)
      .post('/api/sign-in')
      .set('Cookie', 'kb.device=made-up-3.0123456789abcdef.AAAA')
      .send({ signInName: people.names.lead, password: 'wrong' })
      .expect(429);
    await strict.close();
  });
});

describe('a password', () => {
  it('is changed by whoever knows the old one, and everybody else who was in with it is out', async () => {
    const made = await makeStaff(shop, 'change');
    const other = request.agent(shop.app);
    await other
      .post('/api/sign-in')
      .send({ signInName: made.names.viewer, password: testPassword })
      .expect(200);
    const wrong = await made.viewer
      .post('/api/me/password')
      .send({ old: 'not this one', password: 'plough gate amber tin' })
      .expect(422);
    expect((wrong.body as { fields: { field: string }[] }).fields[0]?.field).toBe('old');
    await made.viewer
      .post('/api/me/password')
      .send({ old: testPassword, password: 'plough gate amber tin' })
      .expect(200);
    await made.viewer.get('/api/me').expect(200);
    await other.get('/api/me').expect(401);
    await request(shop.app)
      .post('/api/sign-in')
      .send({ signInName: made.names.viewer, password: testPassword })
      .expect(401);
    await request(shop.app)
      .post('/api/sign-in')
      .send({ signInName: made.names.viewer, password: 'plough gate amber tin' })
      .expect(200);
    await request(shop.app).post('/api/me/password').send({ old: 'a', password: 'b' }).expect(401);
  });

  it.each([
    '          ',
    'password123',
    'qwertyuiop',
    'aaaaaaaaaaaa',
    'abcabcabcabc',
    'Ada Weir Ada Weir',
    'Ada.Weir.2026',
  ])('that is guessed at once is refused in words: %j', async (password) => {
    const refused = await staff.lead
      .post('/api/people')
      .send({
        id: uuidv7(),
        name: 'Ada Weir',
        signInName: `ada${password.length}`,
        role: 'viewer',
        password,
      })
      .expect(422);
    expect((refused.body as { fields: { field: string; message: string }[] }).fields).toEqual([
      { field: 'password', message: expect.stringContaining('four words') as string },
    ]);
  });

  it('of one’s own is not set without the old one, by a lead either', async () => {
    const me = (await staff.lead.get('/api/me').expect(200)).body as { personId: string };
    const refused = await staff.lead
      .patch(`/api/people/${me.personId}`)
      .send({ password: 'plough gate amber tin' })
      .expect(422);
    expect((refused.body as { message: string }).message).toContain('with the old one');
  });

  it('is not tried out by whoever borrows an open phone', async () => {
    const strict = await openTestShop({ signInTries: 3 });
    const made = await makeStaff(strict, 'borrowed');
    const change = () =>
      made.viewer
        .post('/api/me/password')
        .send({ old: 'guess', password: 'plough gate amber tin' });
    for (let n = 0; n < 3; n += 1) await change().expect(422);
    await change().expect(429);
    await strict.close();
  });
});

describe('people', () => {
  let team: Staff;
  beforeAll(async () => {
    team = await makeStaff(shop, 'b');
  });
  const person = (signInName: string) => ({
    id: uuidv7(),
    name: 'New One',
    signInName,
    role: 'technician',
    password: 'first password',
  });

  it('keep a lead, however many leads take it from each other at once', async () => {
    for (let round = 0; round < 10; round += 1) {
      const pair = await makeStaff(shop, `pair-${round}`);
      const other = person(`pair-${round}-second`);
      await pair.lead
        .post('/api/people')
        .send({ ...other, role: 'lead' })
        .expect(201);
      const second = request.agent(shop.app);
      await second
        .post('/api/sign-in')
        .send({ signInName: other.signInName, password: other.password })
        .expect(200);
      const answers = await Promise.all([
        pair.lead.patch(`/api/people/${other.id}`).send({ role: 'viewer' }),
        second.patch(`/api/people/${pair.ids.lead}`).send({ role: 'viewer' }),
      ]);
      expect(answers.map(({ status }) => status).sort()).toEqual([200, 403]);
    }
  });

  it('are added and changed by a lead alone', async () => {
    await team.technician.post('/api/people').send(person('b-x')).expect(403);
    await team.viewer.post('/api/people').send(person('b-x')).expect(403);
    await team.lead.post('/api/people').send(person('b-x')).expect(201);
    await team.technician
      .patch(`/api/people/${team.ids.viewer}`)
      .send({ role: 'lead' })
      .expect(403);
    await team.viewer.patch(`/api/people/${team.ids.viewer}`).send({ role: 'lead' }).expect(403);
  });

  it('cannot share a sign-in name, not even in other letters', async () => {
    const answer = await team.lead.post('/api/people').send(person('B-LEAD')).expect(409);
    expect(answer.body).toMatchObject({ code: 'name-taken', fields: [{ field: 'signInName' }] });
  });

  it('lose what they may do at once, without signing out', async () => {
    await team.lead
      .patch(`/api/people/${team.ids.technician}`)
      .send({ role: 'viewer' })
      .expect(200);
    await team.technician.post('/api/units').send({}).expect(403);
    await team.lead.patch(`/api/people/${team.ids.technician}`).send({ active: false }).expect(200);
    await team.technician.get('/api/me').expect(401);
    await request(shop.app)
      .post('/api/sign-in')
      .send({ signInName: team.names.technician, password: testPassword })
      .expect(401);
  });

  it('keep a lead: nobody takes the role from themselves', async () => {
    await team.lead.patch(`/api/people/${team.ids.lead}`).send({ role: 'viewer' }).expect(422);
    await team.lead.patch(`/api/people/${team.ids.lead}`).send({ active: false }).expect(422);
  });

  it('of another shop are neither listed nor reached', async () => {
    const list = await team.lead.get('/api/people').expect(200);
    expect((list.body as { id: string }[]).map((each) => each.id)).not.toContain(staff.ids.lead);
    await team.lead.patch(`/api/people/${staff.ids.viewer}`).send({ role: 'lead' }).expect(404);
  });
});
