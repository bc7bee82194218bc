import type { AcidityAsk, AddedLine, SapLine } from './acidity-ask.ts';
import { Jar, middle, prepare } from './acidity-jar.ts';

/** How far a jar has come at an hour. */
export interface OnTheWay {
  hours: number;
  centre_ph: number;
  pieces_ph: number;
  liquid_ph: number;
}

/** How fast acid finds its way through heated plant tissue, mm²/h. From memory: 5e-10 to 1e-9 m²/s of acids in cooked vegetables. */
const DIFFUSES_MM2PERH = 2.2;
/** Hours at which the way is told. */
export const HOURS_TOLD = [0, 1, 2, 4, 8, 12, 18, 24, 36, 48, 72, 96, 120, 168] as const;

/**
 * The way from filling to equilibrium: how sour the middle of a piece, the pieces and the liquid are at each hour.
 *
 * @param piece_mm  smallest side of a piece
 * @returns empty where nothing is packed in pieces, or there is no acid to find its way
 * @source Crank, The Mathematics of Diffusion: a sphere and a slab in a liquid that is well stirred (from memory)
 */
export function wayToEquilibrium(ask: AcidityAsk, piece_mm: number): OnTheWay[] {
  if (ask.added.length === 0 || ask.lines.length === 0 || !(piece_mm > 0)) return [];
  const prepared = prepare(ask);
  const at = middle(prepared);
  const sap_g = ask.lines.reduce((sum, l) => sum + (l.piece ? l.sap_g[0] : 0), 0);
  const inPieces_g = Math.min(ask.water_g[0] * 0.98, sap_g * 0.88);
  if (inPieces_g <= 0) return [];
  const share = inPieces_g / ask.water_g[0];
  const added = (of: number): AddedLine[] =>
    ask.added.map(a => ({ ...a, acid_g: a.acid_g.map(g => g * of) as AddedLine['acid_g'] }));
  const own = (of: number): SapLine[] =>
    ask.lines.map(l => ({ ...l, sap_g: l.sap_g.map(g => (l.piece ? g * of : g)) as SapLine['sap_g'] }));
  /** Of the acid that is in pieces at the end, and of their own sap that is in the liquid then, so much has moved. */
  const ph = (moved: number, where: 'pieces' | 'liquid') => {
    const water = ask.water_g[0] * (where === 'pieces' ? share : 1 - share);
    const of: AcidityAsk = {
      ...ask,
      water_g: [water, water, water],
      salt_g: ask.salt_g.map(
        g => g * (where === 'pieces' ? share * moved : 1 - share * moved),
      ) as AcidityAsk['salt_g'],
      poured_g: ask.poured_g.map(
        g => g * (where === 'pieces' ? share * moved : 1 - share * moved),
      ) as AcidityAsk['poured_g'],
      added: added(where === 'pieces' ? share * moved : 1 - share * moved),
      lines: own(where === 'pieces' ? 1 - (1 - share) * moved : (1 - share) * moved),
    };
    const now = prepare(of);
    return new Jar(now, 0).ph(at);
  };
  return HOURS_TOLD.map(hours => {
    const { centre, mean } = moved(hours, piece_mm / 2, ask.flat);
    return {
      hours,
      centre_ph: ph(centre, 'pieces'),
      pieces_ph: ph(mean, 'pieces'),
      liquid_ph: ph(mean, 'liquid'),
    };
  });
}

/** Of the way to equilibrium, how much the middle and the whole of a piece have gone. */
function moved(hours: number, half_mm: number, flat: boolean): { centre: number; mean: number } {
  if (hours === 0) return { centre: 0, mean: 0 };
  const fo = (DIFFUSES_MM2PERH * hours) / (half_mm * half_mm);
  let centre = 0;
  let mean = 0;
  for (let n = 0; n < 60; n++) {
    if (flat) {
      const k = 2 * n + 1;
      const decay = Math.exp((-k * k * Math.PI * Math.PI * fo) / 4);
      centre += ((n % 2 === 0 ? 1 : -1) * 4 * decay) / (Math.PI * k);
      mean += (8 * decay) / (Math.PI * Math.PI * k * k);
    } else {
      const k = n + 1;
      const decay = Math.exp(-k * k * Math.PI * Math.PI * fo);
      centre += (n % 2 === 0 ? 1 : -1) * 2 * decay;
      mean += (6 * decay) / (Math.PI * Math.PI * k * k);
    }
  }
  const within = (x: number) => Math.min(1, Math.max(0, 1 - x));
  return { centre: within(centre), mean: within(mean) };
}
