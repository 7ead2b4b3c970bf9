import sharp from 'sharp';

/** Most points of a picture, so that nobody's photo takes the server's memory: 25 million take 75 MB at most. */
const MOST_POINTS = 25_000_000;
/** The longer side of a photo on paper, px. */
const PRINTED_PX = 1_200;

// One picture takes one thread, and nothing of it is kept.
sharp.concurrency(1);
sharp.cache(false);

const KINDS: Readonly<Record<string, string>> = {
  'image/jpeg': 'jpeg',
  'image/png': 'png',
  'image/webp': 'webp',
};

const opened = (bytes: Buffer) =>
  sharp(bytes, { limitInputPixels: MOST_POINTS, failOn: 'error', sequentialRead: true });

/** What is wrong with a photo, in words; null where it can be drawn as what it says it is. */
export async function wrongWithPhoto(bytes: Buffer, mediaType: string): Promise<string | null> {
  const kind = KINDS[mediaType];
  const noPicture = 'This is no JPEG, PNG or WebP picture that can be drawn: take it again.';
  if (!kind) return noPicture;
  try {
    const { format, width, height } = await sharp(bytes, { limitInputPixels: false }).metadata();
    if (format !== kind) return noPicture;
    if (width * height > MOST_POINTS) {
      return `This picture has ${width} × ${height} points; it may have ${MOST_POINTS / 1e6} million. Make it smaller.`;
    }
    // Every line of it is decoded; what comes out of that is not wanted.
    await opened(bytes).resize(16, 16, { fit: 'fill', fastShrinkOnLoad: false }).raw().toBuffer();
    return null;
  } catch {
    return noPicture;
  }
}

/** A photo as a JPEG for paper; null where it cannot be drawn. */
export const forPaper = (bytes: Buffer): Promise<Buffer | null> =>
  opened(bytes)
    .autoOrient()
    .resize(PRINTED_PX, PRINTED_PX, { fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#fff' })
    .jpeg({ quality: 80 })
    .toBuffer()
    .catch(() => null);
