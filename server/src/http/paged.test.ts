import express from 'express';
import request from 'supertest';
import { PAGE_ROWS, pageOf } from './paged';

const app = express();
app.get(['/api/:rows', '/api/v1/:rows'], (asked, response) => {
  const rows = Array.from({ length: Number(asked.params.rows) }, (_, n) => `r${n}`);
  response.json(pageOf(rows, response, '/rows', (row) => row));
});

const page = async (rows: number, version = '') => {
  const answer = await request(app).get(`/api${version}/${rows}`);
  return { rows: answer.body as string[], link: answer.get('link') };
};

it('is all there is, without a link, up to a page', async () => {
  expect((await page(0)).rows).toEqual([]);
  const whole = await page(PAGE_ROWS);
  expect(whole.rows).toHaveLength(PAGE_ROWS);
  expect(whole.link).toBeUndefined();
});

it('leaves the row that shows there is more to the next page, which begins after its own last', async () => {
  const first = await page(PAGE_ROWS + 1);
  expect(first.rows).toHaveLength(PAGE_ROWS);
  expect(first.rows.at(-1)).toBe(`r${PAGE_ROWS - 1}`);
  expect(first.link).toBe(`</api/rows?after=r${PAGE_ROWS - 1}>; rel="next"`);
  expect((await page(PAGE_ROWS + 1, '/v1')).link).toBe(
    `</api/v1/rows?after=r${PAGE_ROWS - 1}>; rel="next"`,
  );
});
