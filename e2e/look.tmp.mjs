import { chromium } from 'playwright';
const shots = JSON.parse(process.argv[2]);
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
for (const { out, w = 390, h = 844, theme = 'dark', path, steps = [], who = 'idris' } of shots) {
  const ctx = await b.newContext({ viewport: { width: w, height: h }, colorScheme: theme });
  const p = await ctx.newPage();
  p.on('console', (m) => { if (m.type() === 'error') console.log(out, m.text().slice(0, 300)); });
  p.on('pageerror', (e) => console.log(out, 'pageerror', String(e).slice(0, 300)));
  await p.goto('http://127.0.0.1:4720/');
  await p.getByLabel('Name').fill(who);
  await p.getByLabel('Password').fill('grit-before-snow');
  await p.getByRole('button', { name: 'Sign in' }).click();
  await p.getByRole('list', { name: 'Units' }).waitFor();
  try {
    if (path) {
      const id = await p.evaluate(async (n) => (await (await fetch('/api/units')).json()).find((u) => u.number === n)?.id, path.unit ?? '');
      await p.goto('http://127.0.0.1:4720' + path.to.replace('ID', id ?? ''));
    }
    for (const s of steps) {
      if (s.click) await p.getByRole(s.role ?? 'button', { name: s.rx ? new RegExp(s.click) : s.click, exact: !s.rx }).first().click({ timeout: 8000 });
      if (s.fill) await p.getByLabel(s.fill).fill(s.text);
      if (s.select) await p.getByLabel(s.select, { exact: true }).selectOption(s.text);
      if (s.wait) await p.waitForTimeout(s.wait);
      if (s.see) await p.getByText(s.see).first().waitFor({ timeout: 10000 });
      if (s.eval) console.log(await p.evaluate(s.eval));
    }
  } catch (e) { console.log(out, String(e).slice(0, 500)); }
  await p.screenshot({ path: out });
  await ctx.close();
}
await b.close();
