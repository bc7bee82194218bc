import { PAPER_LIMIT_PAGES } from '@cocotte/core/kitchen';
import { PDFDocument, PDFName } from 'pdf-lib';

/** Why a document is not kept. */
export type DocumentFault = 'not-a-pdf' | 'locked' | 'too-many-pages';

/**
 * What is kept of a PDF: its pages, put into a document of our own. Scripts, attachments and whatever else hung on the
 * document stay behind, and it is no larger than it came.
 */
export async function keepDocument(
  bytes: Uint8Array,
): Promise<{ bytes: Uint8Array } | { fault: DocumentFault }> {
  let came: PDFDocument;
  try {
    came = await PDFDocument.load(bytes, { updateMetadata: false });
  } catch (error) {
    return { fault: error instanceof Error && /encrypted/i.test(error.message) ? 'locked' : 'not-a-pdf' };
  }
  try {
    const pages = came.getPageCount();
    if (pages < 1) return { fault: 'not-a-pdf' };
    if (pages > PAPER_LIMIT_PAGES) return { fault: 'too-many-pages' };
    const kept = await PDFDocument.create();
    for (const page of await kept.copyPages(came, came.getPageIndices())) {
      page.node.delete(PDFName.of('AA'));
      kept.addPage(page);
    }
    return { bytes: await kept.save({ useObjectStreams: true }) };
  } catch {
    return { fault: 'not-a-pdf' };
  }
}
