import sharp from 'sharp';

/** A small picture that can be drawn; each shade, 0 to 9, is another. */
export const aPhoto = (shade = 0, kind: 'jpeg' | 'png' | 'webp' = 'jpeg'): Promise<Buffer> =>
  sharp({
    create: {
      width: 40,
      height: 30,
      channels: 3,
      background: { r: (shade * 24) % 256, g: 90, b: 60 },
    },
  })
    .toFormat(kind)
    .toBuffer();
