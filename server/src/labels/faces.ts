import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { type FaceId, type Fonts, ofFaces, readFont } from '@cocotte/core/typeset';
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

let fonts: Fonts | undefined;
/** Metrics of every face, read once a thread. */
export function labelFonts(): Fonts {
  fonts ??= ofFaces(face => {
    const file = faceFile(face);
    return readFont(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer)
      .metrics;
  });
  return fonts;
}

/** Writes symbols. */
export const writeSymbol: SymbolWriter = options =>
  (bwip as unknown as { raw: (o: object) => ReturnType<SymbolWriter> }).raw(options);
