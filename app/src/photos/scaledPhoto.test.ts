import { fittingSize, scaledPhoto } from './scaledPhoto';

describe('a photo', () => {
  it('is made no longer than it need be, in its own shape', () => {
    expect(fittingSize(4000, 3000)).toEqual({ width: 1600, height: 1200 });
    expect(fittingSize(3000, 4000)).toEqual({ width: 1200, height: 1600 });
    expect(fittingSize(800, 600)).toEqual({ width: 800, height: 600 });
    expect(fittingSize(10_000, 2)).toEqual({ width: 1600, height: 1 });
  });

  it('that is too heavy to open is refused in words, and so is what is no picture', async () => {
    const heavy = { size: 70_000_000 } as Blob;
    expect(await scaledPhoto(heavy)).toMatch(/too large/);
    globalThis.createImageBitmap = () => Promise.reject(new Error('no picture'));
    expect(await scaledPhoto(new Blob(['text']))).toMatch(/no picture/);
  });
});
