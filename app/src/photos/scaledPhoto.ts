/** The longer side of a photo that is kept, px: enough to read a number off a part. */
const LONGEST_PX = 1600;
/** Weight of a kept photo at most, and what is tried to get there. */
const MOST_BYTES = 900_000;
const QUALITIES = [0.82, 0.65, 0.45] as const;
/** A file heavier than this is not opened at all: a phone would run out of memory. */
const MOST_CHOSEN_BYTES = 60_000_000;

/** Size of a picture that fits, px; a small one stays as it is. */
export function fittingSize(width: number, height: number): { width: number; height: number } {
  const share = Math.min(1, LONGEST_PX / Math.max(width, height));
  return {
    width: Math.max(1, Math.round(width * share)),
    height: Math.max(1, Math.round(height * share)),
  };
}

/**
 * A photo made small enough to send, as JPEG: drawn anew, so that nothing of where and by what it was taken stays in it.
 *
 * @returns the photo, or what is wrong with it in words
 */
export async function scaledPhoto(file: Blob): Promise<Blob | string> {
  if (file.size > MOST_CHOSEN_BYTES) {
    return 'This picture is too large to open here: take it again at a smaller size.';
  }
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(
    () => null,
  );
  if (!picture) return 'This is no picture that can be shown here: choose a JPEG, PNG or WebP.';
  const { width, height } = fittingSize(picture.width, picture.height);
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const context = canvas.getContext('2d');
  if (!context) return 'This device cannot make the picture smaller.';
  // What is transparent would turn black.
  context.fillStyle = '#fff';
  context.fillRect(0, 0, width, height);
  context.drawImage(picture, 0, 0, width, height);
  picture.close();
  for (const quality of QUALITIES) {
    const made = await new Promise<Blob | null>((done) =>
      canvas.toBlob(done, 'image/jpeg', quality),
    );
    if (made && made.size <= MOST_BYTES) return made;
  }
  return 'This picture cannot be made small enough to send: take it from a little further away.';
}
