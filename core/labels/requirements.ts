import { numberText } from '../measure/index.ts';
import { type Box_mm, contrast, fieldBox, type Fonts } from '../typeset/index.ts';
import type { LabelRule } from './content-rules.ts';
import {
  aboveNet_mm,
  besideNet_mm,
  type LabelAsk,
  type LabelLayout,
  type LabelPiece,
} from './layout/layout.ts';
import { NAME_SHARE, NET_SHARE } from './layout/type-sizes.ts';

/** A requirement with where on the label it is met: the piece and its box; nothing where it is not drawn. */
export interface PlacedRule extends LabelRule {
  at: { piece: LabelPiece['name']; box: Box_mm } | null;
}

/** Contrast of type that anybody reads, as WCAG asks it of text; rules of labels say "conspicuous" and "legible". */
const CONTRAST = 4.5;

/**
 * Every requirement of a label that was laid out: those of its words, and those of type, place and contrast, measured on what
 * is drawn.
 *
 * @param words  requirements of the words
 */
export function requirements(
  words: readonly LabelRule[],
  ask: LabelAsk,
  layout: Extract<LabelLayout, { ok: true }>,
  fonts: Fonts,
): PlacedRule[] {
  const { look } = ask;
  const { least } = layout;
  const locale = { locale: ask.label.locale };
  const mm = (v: number) => `${numberText(v, locale, 1)} mm`;
  const placed = (field: string): PlacedRule['at'] => {
    for (const { name, drawing } of layout.pieces) {
      const box = field === '' ? null : fieldBox(drawing, field, fonts);
      if (box) return { piece: name, box };
    }
    return null;
  };
  // Figures beneath bars are a part of their code.
  const runs = layout.pieces.flatMap(p =>
    p.drawing.items.flatMap(i => (i.kind === 'text' && i.field !== 'code' ? [i] : [])),
  );
  const sizeOf = (field: string) => Math.min(...runs.filter(r => r.field === field).map(r => r.size_mm));
  const eu = ask.label.asks.rules === 'EU';
  const out: PlacedRule[] = words.map(r => ({ ...r, at: placed(r.field) }));
  const add = (what: string, field: string, met: boolean, shown: string, rule: string, next: string) =>
    out.push({ what, field, met, shown, rule: `${rule} (from memory)`, next, at: placed(field) });

  const smallest = Math.min(
    ...runs
      .filter(r => r.field !== 'net')
      .map(r => r.size_mm * (eu ? (fonts[r.face].glyph('x')?.top ?? 0) : fonts[r.face].lowercase)),
  );
  add(
    'Letters large enough',
    runs.find(r => r.field !== 'net' && r.size_mm * fonts[r.face].lowercase <= smallest + 1e-6)?.field ??
      'ingredients',
    smallest >= least.wordsHeight_mm - 1e-6,
    `Lower-case letters ${mm(smallest)} high; ${mm(least.wordsHeight_mm)} are asked for`,
    eu ? 'Regulation (EU) 1169/2011, article 13' : '21 CFR 101.2(c)',
    'Choose a larger label.',
  );
  const net = sizeOf('net');
  if (Number.isFinite(net)) {
    const height =
      net * (least.netMeasures === 'figures' ? (fonts.bold.glyph('0')?.top ?? 0) : fonts.bold.lowercase);
    add(
      'Net contents high enough',
      'net',
      height >= least.netHeight_mm - 1e-6,
      `${least.netMeasures === 'figures' ? 'Figures' : 'Lower-case letters'} ${mm(height)} high; ${mm(least.netHeight_mm)} are asked for ${eu ? 'of this quantity' : 'on a panel of this jar'}`,
      eu ? 'Directive 76/211/EEC, annex I' : '21 CFR 101.7(i)',
      'Choose a larger label.',
    );
    const found = placed('net');
    const piece = layout.pieces.find(p => p.name === found?.piece);
    if (!eu && found && piece?.panel) {
      const { panel } = piece;
      const share = (panel.bottom - found.box.top) / (panel.bottom - panel.top);
      add(
        'Net contents at the foot of the panel',
        'net',
        !least.netAtFoot || share <= NET_SHARE + 1e-6,
        least.netAtFoot
          ? `In the lowest ${numberText(share * 100, locale, 0)} %; 30 % are allowed`
          : 'Not asked on a panel of 5 square inches or less',
        '21 CFR 101.7(f)',
        'Choose a higher label, or a form of net contents that takes one line.',
      );
      const free = freeAround(piece, found.box, fonts);
      add(
        'Net contents by themselves',
        'net',
        free.above >= aboveNet_mm(net, fonts) - 0.01 && free.beside >= besideNet_mm(net, fonts) - 0.01,
        `${Number.isFinite(free.above) ? mm(free.above) : 'All'} free above, ${Number.isFinite(free.beside) ? mm(free.beside) : 'all'} beside`,
        '21 CFR 101.7(f)',
        'Choose a larger label.',
      );
    }
  }
  const name = sizeOf('identity');
  const largest = Math.max(...runs.filter(r => r.field !== 'identity').map(r => r.size_mm));
  add(
    'The name in proportion',
    'identity',
    name >= largest * NAME_SHARE - 1e-6,
    `${numberText((name / largest) * 100, locale, 0)} % of the largest other type`,
    eu
      ? 'Regulation (EU) 1169/2011, article 13: conspicuous'
      : '21 CFR 101.3(d), commonly read as half of it',
    'Choose a larger label.',
  );
  if (ask.label.asks.statement_pt !== null && ask.label.statement !== '') {
    const pt = (sizeOf('statement') / 25.4) * 72;
    add(
      'The statement large enough',
      'statement',
      pt >= ask.label.asks.statement_pt - 1e-6,
      `${numberText(pt, locale, 1)} points; ${ask.label.asks.statement_pt} are asked for`,
      ask.label.place?.name ?? 'Your place',
      'Choose a larger label.',
    );
  }
  const weakest = Math.min(...[look.ink, look.accent].map(c => contrast(c, look.ground)));
  add(
    'Contrast',
    contrast(look.accent, look.ground) === weakest ? 'identity' : 'ingredients',
    weakest >= CONTRAST,
    `${numberText(weakest, locale, 1)} to 1; ${CONTRAST} to 1 are asked for`,
    '21 CFR 101.2 and 101.3: legible and conspicuous; WCAG 2 for the figure',
    'Choose a darker ink or a lighter ground.',
  );
  if (eu) {
    const same = layout.pieces.some(
      p => fieldBox(p.drawing, 'identity', fonts) && fieldBox(p.drawing, 'net', fonts),
    );
    add(
      'Name and quantity seen together',
      'identity',
      same,
      same ? 'On the same side' : '',
      'Regulation (EU) 1169/2011, article 13(5)',
      'Choose another design.',
    );
  }
  return out;
}

/** How far other words stay from the net contents, above and beside. */
function freeAround(piece: LabelPiece, net: Box_mm, fonts: Fonts): { above: number; beside: number } {
  let [above, beside] = [Infinity, Infinity];
  const fields = new Set(piece.drawing.items.map(i => i.field).filter(f => f !== 'net' && f !== 'rule'));
  for (const field of fields)
    for (const item of piece.drawing.items.filter(i => i.field === field)) {
      const box = fieldBox({ ...piece.drawing, items: [item] }, field, fonts);
      if (!box) continue;
      const overlapsAcross = box.left < net.right && box.right > net.left;
      const overlapsDown = box.top < net.bottom && box.bottom > net.top;
      if (overlapsAcross && box.bottom <= net.top + 1e-9) above = Math.min(above, net.top - box.bottom);
      if (overlapsAcross && box.top >= net.bottom - 1e-9) above = Math.min(above, box.top - net.bottom);
      if (overlapsDown)
        beside = Math.min(beside, box.left >= net.right ? box.left - net.right : net.left - box.right);
    }
  return { above, beside };
}
