/** What may be handed in: what cameras, scanners and authorities give out. */
export const PAPER_TYPES = ['image/jpeg', 'image/png', 'image/webp', 'application/pdf'] as const;
/** As what it is kept: pictures as JPEG, turned upright and made smaller, documents as PDF. */
export const KEPT_PAPER_TYPES = ['image/jpeg', 'application/pdf'] as const;
/** Largest file that is taken, bytes. */
export const PAPER_LIMIT_BYTES = 10_000_000;
/** Pages a document has at most. */
export const PAPER_LIMIT_PAGES = 60;
/** Papers a kitchen keeps at most. */
export const PAPERS_IN_A_KITCHEN = 500;
/** Longest side of a picture as it is kept: print of 8 points is read on a photographed page. */
export const PICTURE_SIDE_PX = 2400;

/** A picture or document in a kitchen's room for papers: an open page, a letter, a permit. */
export interface Paper {
  id: string;
  /** What it shows: the subject of a page (`pageOf` in the review), or a point of the place ({@link placeSubject}). */
  subject: string;
  name: string;
  mediaType: (typeof KEPT_PAPER_TYPES)[number];
  /** Of what is kept. */
  bytes: number;
  sha256: string;
  personId: string;
  addedAt: string;
}

/** Pictures that a batch keeps beside its record at most. */
export const PICTURES_OF_A_BATCH = 60;
const BATCH = 'batch:';
/** The subject of a picture of a batch. */
export const batchSubject = (batchId: string): string => `${BATCH}${batchId}`;
/** The batch whose record a paper belongs to; null for one of the room for papers. */
export const batchOfSubject = (subject: string): string | null =>
  subject.startsWith(BATCH) ? subject.slice(BATCH.length) : null;

/** The subject of a paper that shows a point of a place: its permit, its certificate. */
export const placeSubject = (placeId: string, point: string): string => `place:${placeId}:${point}`;
