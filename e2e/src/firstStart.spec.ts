import { expect, test } from './ownServer';

test.use({ withDemo: false });

test(
  'a new installation asks for its first lead, and starts with an empty yard',
  { tag: '@main' },
  async ({ page, server }) => {
    // A password that is about to go over plain HTTP is told of before it is chosen.
    const notice = page.getByText('This address is not HTTPS');
    await page.goto(server.url.replace('127.0.0.1', 'depot.test'));
    await expect(notice).toBeVisible();
    await page.goto('/');
    await expect(page.getByLabel('Shop name')).toBeVisible();
    await expect(notice).toBeHidden();
    await page.getByRole('button', { name: 'Make the first account' }).click();
    await expect(page.getByText('Password needs at least 10 characters.')).toBeVisible();
    await page.getByLabel('Shop name').fill('Hollow Bridge Garage');
    await page.getByLabel('Your name').fill('Ama Reed');
    await page.getByLabel('Sign-in name').fill('ama');
    await page.getByLabel(/^Password/).fill('a good long one');
    await page.getByLabel('Set-up code').fill('AAAA-AAAA');
    await page.getByRole('button', { name: 'Make the first account' }).click();
    await expect(page.getByText(/This is not the set-up code/)).toBeVisible();
    // It is printed where the server was started, and nowhere else.
    const code = /Set-up code (\S+):/.exec(server.said())?.[1] ?? '';
    await page.getByLabel('Set-up code').fill(code.toLowerCase());
    await page.getByRole('button', { name: 'Make the first account' }).click();
    await expect(page.getByText('No units here yet')).toBeVisible();
    await expect(page.getByText(/have failed/)).toBeHidden();
    await page.getByRole('link', { name: 'Add a unit' }).click();
    await page.getByLabel('What it is').fill('Tipper');
    await page.getByLabel('Unit number').fill('1');
    await page.getByRole('button', { name: 'Add to the yard' }).click();
    await expect(page.getByText('No runs yet')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Start a run' })).toBeVisible();
  },
);
