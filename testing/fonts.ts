import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { type FaceId, type Fonts, ofFaces, type Outlines, readFont } from '@cocotte/core/typeset';

const require = createRequire(new URL('../server/package.json', import.meta.url));
const FILES: Record<FaceId, string> = {
  plain: '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf',
  bold: '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf',
  heading: '@expo-google-fonts/fraunces/600SemiBold/Fraunces_600SemiBold.ttf',
};

const read = ofFaces(face => {
  const file = readFileSync(require.resolve(FILES[face]));
  return readFont(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer);
});
/** Metrics of the faces that ship. */
export const FONTS: Fonts = ofFaces(face => read[face].metrics);
/** Outlines of the faces that ship. */
export const OUTLINES: Outlines = ofFaces(face => read[face].outline);
