import { createRequire } from 'node:module';
import type { LabelCode } from '@cocotte/core/batches';
import { codeSymbol, type CodeSymbol, type SymbolWriter } from '@cocotte/core/labels';

const require = createRequire(new URL('../server/package.json', import.meta.url));
const bwip = require('bwip-js/node') as { raw: SymbolWriter };

/** Writes symbols by the library that ships. */
export const writeSymbol: SymbolWriter = options => bwip.raw(options);
/** A code as it is drawn. */
export const symbolOf = (kind: LabelCode['kind'], says: string): CodeSymbol =>
  codeSymbol({ kind, says }, writeSymbol);
