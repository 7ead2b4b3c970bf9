import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

const require = createRequire(import.meta.url);
const face = (family: string, weight: number) =>
  require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`);

let ready = false;

/** Tells the printer of its two faces, once, and keeps it from reading anything else. */
function prepare(): void {
  if (ready) return;
  ready = true;
  const faces = {
    Text: {
      normal: face('atkinson-hyperlegible', 400),
      bold: face('atkinson-hyperlegible', 700),
    },
    Numeral: { normal: face('b612', 400), bold: face('b612', 700) },
  };
  const folders = [faces.Text.normal, faces.Numeral.normal].map((file) => dirname(file));
  pdfmake.setFonts(faces);
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((file: string) => {
    const path = file.startsWith('file:') ? fileURLToPath(file) : file;
    return folders.some((folder) => path.startsWith(folder));
  });
}

/** A document on paper. */
export function printed(document: TDocumentDefinitions): Promise<Buffer> {
  prepare();
  return pdfmake.createPdf(document).getBuffer();
}
