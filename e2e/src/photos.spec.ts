import type { Page } from '@playwright/test';
import { expectNoFindings } from './axe';
import { allSent, expect, signIn, test } from './ownServer';

/** A large JPEG with a block of camera data in it, position and all, as a phone takes it. */
async function phonePhoto(page: Page): Promise<Buffer> {
  const drawn = await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    canvas.width = 2600;
    canvas.height = 1900;
    const context = canvas.getContext('2d')!;
    context.fillStyle = '#556';
    context.fillRect(0, 0, 2600, 1900);
    context.fillStyle = '#eee';
    context.fillRect(400, 300, 900, 700);
    const blob = await new Promise<Blob>((done) =>
      canvas.toBlob((made) => done(made!), 'image/jpeg'),
    );
    return [...new Uint8Array(await blob.arrayBuffer())];
  });
  const exif = Buffer.from('Exif\0\0GPSLatitude 46.5 GPSLongitude 7.9', 'latin1');
  const length = exif.length + 2;
  const segment = Buffer.concat([Buffer.from([0xff, 0xe1, length >> 8, length & 0xff]), exif]);
  const jpeg = Buffer.from(drawn);
  return Buffer.concat([jpeg.subarray(0, 2), segment, jpeg.subarray(2)]);
}

test(
  'a photo goes into a visit smaller, without where it was taken, and is seen by the shop alone',
  { tag: '@both' },
  async ({ page }) => {
    await signIn(page, 'idris');
    await page
      .getByRole('list', { name: 'Units' })
      .getByRole('link', { name: /^Tipper 21/ })
      .click();
    await page.getByRole('button', { name: 'Start a visit' }).click();
    await page
      .getByRole('button', { name: /^(Start|Open|Go on)/ })
      .last()
      .click();
    await page.getByLabel('In a few words').fill('Bracket cracked, see the photo');
    const photo = await phonePhoto(page);
    expect(photo.toString('latin1')).toContain('GPSLatitude');
    await page.getByLabel('Photos', { exact: true }).setInputFiles([
      { name: 'bracket.jpg', mimeType: 'image/jpeg', buffer: photo },
      { name: 'note.txt', mimeType: 'image/jpeg', buffer: Buffer.from('no picture') },
    ]);
    await expect(page.getByText('This is no picture that can be shown here')).toBeVisible();
    await expect(
      page.getByRole('list', { name: 'Photos added' }).getByRole('listitem'),
    ).toHaveCount(1);
    await expectNoFindings(page);
    // It reaches the server before the entry that names it.
    const sent = page.waitForRequest(
      (request) => request.method() === 'PUT' && request.url().includes('/api/v1/photos/'),
    );
    await page.getByRole('button', { name: 'Add the note' }).click();
    const strip = page.getByRole('list', { name: /^Photos of Bracket cracked/ });
    await expect(strip.getByRole('img')).toBeVisible();
    const url = new URL((await sent).url());
    await expect
      .poll(async () => (await page.request.get(url.origin + url.pathname)).status())
      .toBe(200);
    const kept = await (await page.request.get(url.origin + url.pathname)).body();
    expect(kept.subarray(0, 3)).toEqual(Buffer.from([0xff, 0xd8, 0xff]));
    expect(kept.toString('latin1')).not.toContain('GPS');
    expect(kept.length).toBeLessThan(900_000);
    const size = await page.evaluate(async (path) => {
      const picture = await createImageBitmap(await (await fetch(path)).blob());
      return Math.max(picture.width, picture.height);
    }, url.pathname);
    expect(size).toBe(1600);
    // And it is on paper with the visit, once the entry that names it has followed.
    await allSent(page);
    const report = await page.request.get(
      url.origin + `/api/visits/${page.url().split('/').pop() ?? ''}/report.pdf`,
    );
    expect(report.status()).toBe(200);
    // Its picture is in it, as a JPEG.
    expect((await report.body()).toString('latin1')).toContain('DCTDecode');
  },
);
