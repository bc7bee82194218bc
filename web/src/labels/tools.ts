import type { SymbolWriter } from '@cocotte/core/labels';
import { FACES, type FaceId, type Fonts, ofFaces, type Outlines, readFont } from '@cocotte/core/typeset';
import plain from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf?url';
import bold from '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf?url';
import heading from '@expo-google-fonts/fraunces/600SemiBold/Fraunces_600SemiBold.ttf?url';
import { useQuery } from '@tanstack/react-query';

/** The files from which the paper is set too: screen and paper draw the same outlines. */
const FILES: Record<FaceId, string> = { plain, bold, heading };

/** What labels are laid out and drawn with. */
export interface LabelTools {
  fonts: Fonts;
  outlines: Outlines;
  writeSymbol: SymbolWriter;
}

async function labelTools(): Promise<LabelTools> {
  const [{ default: bwip }, ...read] = await Promise.all([
    import('bwip-js/browser'),
    ...FACES.map(async face => {
      const answer = await fetch(FILES[face]);
      if (!answer.ok) throw new Error(`The face ${face} could not be read.`);
      return [face, readFont(await answer.arrayBuffer())] as const;
    }),
  ]);
  const faces = new Map(read);
  const found = (face: FaceId) => faces.get(face) as ReturnType<typeof readFont>;
  return {
    fonts: ofFaces(f => found(f).metrics),
    outlines: ofFaces(f => found(f).outline),
    writeSymbol: options =>
      (bwip as unknown as { raw: (o: object) => ReturnType<SymbolWriter> }).raw(options),
  };
}

/** Faces and codes, read once a tab. */
export const useLabelTools = () =>
  useQuery({ queryKey: ['label tools'], queryFn: labelTools, staleTime: Infinity, gcTime: Infinity });
