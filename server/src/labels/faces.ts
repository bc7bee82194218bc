import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { type FaceId, type Fonts, ofFaces, type Outlines, readFont } from '@cocotte/core/typeset';
import type { SymbolWriter } from '@cocotte/core/labels';
import bwip from 'bwip-js/node';

const require = createRequire(import.meta.url);
const NEXT = '@expo-google-fonts/atkinson-hyperlegible-next';
/** Files of the faces of labels: static TrueType, one a weight. The browser reads the same ones. */
const FILES: Record<FaceId, string> = {
  plain: `${NEXT}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`,
  bold: `${NEXT}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`,
  heading: '@expo-google-fonts/fraunces/600SemiBold/Fraunces_600SemiBold.ttf',
};

const files = new Map<FaceId, Buffer>();
/** Bytes of a face. */
export function faceFile(face: FaceId): Buffer {
  let file = files.get(face);
  if (!file) files.set(face, (file = readFileSync(require.resolve(FILES[face]))));
  return file;
}

const read = new Map<FaceId, ReturnType<typeof readFont>>();
/** A face, read once a thread. */
function faceOf(face: FaceId): ReturnType<typeof readFont> {
  let found = read.get(face);
  if (!found) {
    const file = faceFile(face);
    found = readFont(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer);
    read.set(face, found);
  }
  return found;
}
/** Metrics of every face. */
export const labelFonts = (): Fonts => ofFaces(face => faceOf(face).metrics);
/** Outlines of every face. */
export const labelOutlines = (): Outlines => ofFaces(face => faceOf(face).outline);

/** Writes symbols. */
export const writeSymbol: SymbolWriter = options =>
  (bwip as unknown as { raw: (o: object) => ReturnType<SymbolWriter> }).raw(options);
