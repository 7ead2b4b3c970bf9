import express from 'express';
import request from 'supertest';
import { KnownDevice } from './knownDevice';

function phoneOf(devices: KnownDevice, secureRequest = false) {
  const app = express();
  app.set('trust proxy', true);
  app.post('/api/in/:name', (asked, response) => {
    devices.remember(asked, response, asked.params.name);
    response.end();
  });
  app.get('/api/id/:name', (asked, response) => {
    response.json(devices.idFor(asked, asked.params.name));
  });
  const agent = request.agent(app).set('X-Forwarded-Proto', secureRequest ? 'https' : 'http');
  return {
    agent,
    remember: (name: string) => agent.post(`/api/in/${name}`).expect(200),
    idFor: async (name: string) => (await agent.get(`/api/id/${name}`)).body as string | null,
    app,
  };
}

const devices = new KnownDevice('a secret', false);

it('is known for names that were signed in on it, however they are written, and for no others', async () => {
  const phone = phoneOf(devices);
  expect(await phone.idFor('idris')).toBeNull();
  await phone.remember('idris');
  const id = await phone.idFor('idris');
  expect(id).toMatch(/^[0-9a-f-]{36}$/);
  expect(await phone.idFor('%20IDRIS%20')).toBe(id);
  expect(await phone.idFor('paula')).toBeNull();
  await phone.remember('paula');
  // One device is one, whoever is on it.
  expect(await phone.idFor('paula')).toBe(id);
  expect(await phone.idFor('idris')).toBe(id);
});

it('is another for another phone', async () => {
  const [one, other] = [phoneOf(devices), phoneOf(devices)];
  await one.remember('idris');
  await other.remember('idris');
  expect(await one.idFor('idris')).not.toBe(await other.idFor('idris'));
});

it('forgets the name that was signed in longest ago, beyond eight', async () => {
  const phone = phoneOf(devices);
  const names = Array.from({ length: 8 }, (_, n) => `person${n}`);
  for (const name of names) await phone.remember(name);
  for (const name of names) expect(await phone.idFor(name)).not.toBeNull();
  // One that signs in again and again takes no other's place.
  for (const _ of names) await phone.remember('person7');
  for (const name of names) expect(await phone.idFor(name)).not.toBeNull();
  // Signed in again, the first is the newest.
  await phone.remember('person0');
  await phone.remember('ninth');
  expect(await phone.idFor('person0')).not.toBeNull();
  expect(await phone.idFor('person1')).toBeNull();
  expect(await phone.idFor('person2')).not.toBeNull();
  expect(await phone.idFor('ninth')).not.toBeNull();
});

it('tells nobody who used it, and takes no cookie that it did not sign', async () => {
  const phone = phoneOf(devices);
  const answer = await phone.remember('idris');
  const [cookie = ''] = answer.get('set-cookie') ?? [];
  expect(cookie).not.toContain('idris');
  expect(cookie).toMatch(/; HttpOnly; SameSite=Lax$/i);
  expect(cookie).toContain('Path=/api');
  expect(cookie).toContain(`Max-Age=${365 * 86_400}`);
  const value = cookie.split(';')[0] ?? '';
  const asked = (sent: string) => request(phone.app).get('/api/id/idris').set('Cookie', sent);
  expect((await asked(value)).body).not.toBeNull();
  const forged = value.replace(/.(?=[^.]*$)/, (sign) => (sign === 'A' ? 'B' : 'A'));
  expect((await asked(forged)).body).toBeNull();
  const byAnother = phoneOf(new KnownDevice('another secret', false));
  expect((await request(byAnother.app).get('/api/id/idris').set('Cookie', value)).body).toBeNull();
});

it('is remembered over HTTPS alone where the server is asked over HTTPS', async () => {
  const secure = new KnownDevice('a secret', true);
  const plain = await phoneOf(secure).remember('idris');
  expect(plain.get('set-cookie')).toBeUndefined();
  const [cookie] = (await phoneOf(secure, true).remember('idris')).get('set-cookie') ?? [];
  expect(cookie).toContain('; Secure');
});
