import type { Upload } from '@cocotte/contract';
import { PDFDocument } from 'pdf-lib';
import { PNG } from 'pngjs';

/** A picture as a screen saves it: a plain field of a colour. */
export function picture({ width = 24, height = 16, grey = 200 } = {}): Upload {
  const png = new PNG({ width, height });
  png.data.fill(grey);
  return { mediaType: 'image/png', bytes: new Uint8Array(PNG.sync.write(png)) };
}

/** A document of so many pages, each with a line of text. */
export async function pdfOf(pages = 1, write: (pdf: PDFDocument) => void = () => {}): Promise<Upload> {
  const pdf = await PDFDocument.create();
  for (let i = 1; i <= pages; i += 1) pdf.addPage([300, 200]).drawText(`Page ${i}`, { x: 20, y: 100 });
  write(pdf);
  return { mediaType: 'application/pdf', bytes: await pdf.save({ useObjectStreams: false }) };
}
