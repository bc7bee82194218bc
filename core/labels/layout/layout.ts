import type { Container, LabelContent, LabelDesign, LabelLook, LabelStock } from '../../batches/index.ts';
import { dayText, type Fault } from '../../measure/index.ts';
import {
  type Box_mm,
  type Drawing,
  type Drawn,
  type Fonts,
  inkOf,
  measured,
  type Span,
  textFaults,
} from '../../typeset/index.ts';
import {
  BASELINE,
  column,
  disc,
  drawn,
  movedDown,
  type NoRoom,
  type Region,
  type SetBlock,
  setAtFoot,
  setDown,
  type TextBlock,
} from './flow.ts';
import { codeInkFault, type CodesAt, codesAt, type CodeSymbol, waysOf } from './codes.ts';
import { labelFields, type LabelField } from './fields.ts';
import { type LeastSizes, leastSizes, NAME_SHARE, NET_SHARE } from './type-sizes.ts';

/** What a label is laid out from. */
export interface LabelAsk {
  label: LabelContent;
  design: LabelDesign;
  /** Of one blank label. */
  size_mm: { width: number; height: number };
  shape: 'rectangle' | 'round';
  look: LabelLook;
  container: Container;
  /** On a roll codes are of whole dots. */
  form: LabelStock['form'];
  codes: readonly CodeSymbol[];
}

/** One label that is stuck on: most designs have one, *front and back* has two. */
export interface LabelPiece {
  name: 'label' | 'front' | 'back';
  drawing: Drawing;
  /** The part that is looked at first: name and net contents stand in it. */
  panel: Box_mm | null;
}
/** The label laid out, or what keeps it from it. */
export type LabelLayout =
  { ok: true; pieces: LabelPiece[]; least: LeastSizes } | { ok: false; faults: Fault[] };

/** Free edge of every label: printers and knives are off by as much. Common practice, no source. */
const EDGE_MM = 2;
/** Halvings by which the largest type that fits is found. */
const HALVINGS = 6;
const GUTTER_MM = 3;
/** Share of a wrap-around label at either side of its front. Ours. */
const BESIDE_FRONT = 0.29;
/** Sizes in millimetres that are gone up to where there is room. Ours. */
const MOST = { words: 3.6, name: 9, small: 3.4 };

interface Setting {
  ask: LabelAsk;
  fonts: Fonts;
  least: LeastSizes;
  fields: ReadonlyMap<LabelField, Span[]>;
  /** Blocks that were measured already: each is tried at many sizes. */
  measured: Map<string, TextBlock>;
}

const isNoRoom = (made: object): made is NoRoom => 'tooWide' in made;

/** Blocks of fields, in their order, at the sizes they may have. */
function blocksOf(s: Setting, names: readonly LabelField[], align: TextBlock['align']): TextBlock[] {
  return names.flatMap(field => {
    const spans = s.fields.get(field);
    if (!spans) return [];
    const key = `${field} ${align}`;
    let block = s.measured.get(key);
    if (!block) s.measured.set(key, (block = blockOf(s, field, spans, align)));
    return [block];
  });
}

function blockOf(
  s: Setting,
  field: LabelField,
  spans: readonly Span[],
  align: TextBlock['align'],
): TextBlock {
  const { ink, accent } = s.ask.look;
  const words = measured(spans, s.fonts);
  const { least } = s;
  const faces = new Set(spans.map(x => x.face));
  const smallest = faces.has('plain')
    ? Math.max(least.plain, faces.has('bold') ? least.bold : 0)
    : least.bold;
  const most = Math.max(smallest, MOST.words);
  const common = { field, words, align, ink, before: 0.22, clear: 0 };
  switch (field) {
    case 'identity': {
      const smallestName = Math.max(least.net * NAME_SHARE, least.heading) * 1.02;
      return {
        ...common,
        ink: accent,
        least: smallestName,
        most: Math.max(smallestName, MOST.name),
        before: 0.2,
      };
    }
    case 'net':
      // A little above what is asked, so that rounding in a printer takes nothing off it.
      return { ...common, least: least.net * 1.01, most: least.net * 1.01 };
    case 'statement':
      return { ...common, least: least.statement * 1.01, most: Math.max(least.statement * 1.01, MOST.words) };
    default:
      return { ...common, least: smallest * 1.01, most: Math.max(smallest * 1.01, most) };
  }
}

/** Width that stays free at either side of net contents: twice that of a capital N. Source: 21 CFR 101.7(f) (from memory). */
export const besideNet_mm = (size: number, fonts: Fonts): number =>
  2 * size * (fonts.bold.glyph('N')?.advance ?? 0.7);
/** Height that stays free above and below net contents: that of their letters. Source: the same. */
export const aboveNet_mm = (size: number, fonts: Fonts): number => size * fonts.bold.capital;

/** Lines of one region: what stands at its head and its foot, and what is set between. */
interface Part {
  box: Box_mm;
  head: readonly LabelField[];
  foot?: 'net';
  align: TextBlock['align'];
  codes?: boolean;
  picture?: boolean;
  /** What is set is moved to the middle of what is free. */
  middle?: boolean;
  round?: boolean;
  /** It lies beneath all others, which end where it begins. */
  spans?: boolean;
  /** Sides at which other words stand beside its net contents. */
  beside?: 'left' | 'right' | 'both';
}

/** The net contents at the foot of a part, with the height from which they stand by themselves; null where a part has none. */
function footOf(
  s: Setting,
  part: Part,
  panel: Box_mm | null,
  grow: number,
  freeRight: number,
): { set: SetBlock; above: number } | NoRoom | null {
  const { fonts } = s;
  const { box } = part;
  const [block] = part.foot ? blocksOf(s, [part.foot], part.align) : [];
  if (!block) return null;
  const apart = besideNet_mm(block.least, fonts);
  const aside = Math.max(0, apart - GUTTER_MM);
  const narrow: Region = part.round
    ? roundOf(box)
    : column({
        ...box,
        left: box.left + (part.beside === 'left' || part.beside === 'both' ? aside : 0),
        right:
          box.right -
          (freeRight > 0 ? freeRight + apart : part.beside === 'right' || part.beside === 'both' ? aside : 0),
      });
  const set = setAtFoot(block, narrow, grow);
  if (isNoRoom(set)) return set;
  // Brackets and an l rise above capitals.
  const highest = Math.max(
    ...block.words.flatMap(w => [...w.text].map(c => fonts[w.face].glyph(c)?.top ?? 0)),
  );
  const ink = set.top + set.size * (BASELINE - highest);
  if (s.least.netAtFoot && panel && panel.bottom - ink > NET_SHARE * (panel.bottom - panel.top) + 1e-9)
    return { field: 'net', tooWide: null };
  return { set, above: ink - aboveNet_mm(set.size, fonts) };
}

/** The disc in a square. */
function roundOf(box: Box_mm): Region {
  const radius = (box.right - box.left) / 2;
  return disc({ x: box.left + radius, y: box.top + radius }, radius);
}

/** Sets a part at a size with its codes in one way, or says what has no room. */
function setPart(s: Setting, part: Part, panel: Box_mm | null, grow: number, way: CodesAt): Drawn[] | NoRoom {
  const { fonts, ask } = s;
  const { box } = part;
  const items: Drawn[] = [];
  const codes = part.codes ? ask.codes : [];
  const placed = (bottom: number) =>
    codesAt(codes, way, ask.form, { right: box.right, bottom }, fonts, ask.look.ink);
  const atFoot = placed(box.bottom);
  const free = way.beside ? box.right - Math.min(box.right, ...atFoot.keep.map(k => k.left)) : 0;
  const foot = footOf(s, part, panel, grow, free);
  if (foot && isNoRoom(foot)) return foot;
  const bottom = foot ? foot.above : box.bottom;
  const { items: drawnCodes, keep } = way.beside ? atFoot : placed(bottom);
  if (keep.some(k => k.top < box.top || k.left < box.left)) return { field: 'code', tooWide: null };
  items.push(...drawnCodes);
  let top = box.top;
  if (part.picture && ask.look.pictureId) {
    const wide = Math.min(box.right - box.left, ((bottom - top) * 0.4) / ask.look.pictureRatio);
    const tall = wide * ask.look.pictureRatio;
    const left = part.align === 'centre' ? (box.left + box.right - wide) / 2 : box.left;
    items.push({
      kind: 'picture',
      field: 'picture',
      ink: ask.look.ink,
      id: ask.look.pictureId,
      x_mm: left,
      y_mm: top,
      width_mm: wide,
      height_mm: tall,
    });
    top += tall + 1;
  }
  const region = part.round ? { ...roundOf(box), bottom } : column({ ...box, top, bottom }, keep);
  let set = setDown(blocksOf(s, part.head, part.align), region, grow, part.round);
  if (isNoRoom(set)) return set;
  const end = set.at(-1)?.bottom ?? region.top;
  if (part.middle) set = movedDown(set, Math.max(0, (bottom - end) / 2));
  return [...items, ...drawn([...set, ...(foot ? [foot.set] : [])], fonts)];
}

const INFORMATION: readonly LabelField[] = ['ingredients', 'contains', 'shares', 'nutrition'];
const USE: readonly LabelField[] = ['directions', 'keeping'];
const ORIGIN: readonly LabelField[] = ['statement', 'words', 'maker', 'lot'];

/** The parts of each piece of a design, on a label of that size. */
function piecesOf(ask: LabelAsk): { name: LabelPiece['name']; panel: Box_mm | null; parts: Part[] }[] {
  const { width, height } = ask.size_mm;
  const box = { left: EDGE_MM, top: EDGE_MM, right: width - EDGE_MM, bottom: height - EDGE_MM };
  const whole = { left: 0, top: 0, right: width, bottom: height };
  const front: readonly LabelField[] = ['identity', 'notForSale'];
  switch (ask.design) {
    case 'one panel':
      return [
        {
          name: 'label',
          panel: whole,
          parts: [
            {
              box,
              head: [...front, ...INFORMATION, ...USE, ...ORIGIN],
              foot: 'net',
              align: 'left',
              codes: true,
            },
          ],
        },
      ];
    case 'wrap-around': {
      const inner = width - 2 * EDGE_MM - 2 * GUTTER_MM;
      const [a, b] = [box.left + inner * BESIDE_FRONT, box.left + inner * (1 - BESIDE_FRONT) + GUTTER_MM];
      return [
        {
          name: 'label',
          panel: { ...whole, left: a + GUTTER_MM / 2, right: b + GUTTER_MM / 2 },
          parts: [
            { box: { ...box, right: a }, head: [...INFORMATION, ...USE], align: 'left' },
            {
              box: { ...box, left: a + GUTTER_MM, right: b },
              head: front,
              foot: 'net',
              align: 'centre',
              middle: true,
              picture: true,
              beside: 'both',
            },
            { box: { ...box, left: b + GUTTER_MM }, head: ORIGIN, align: 'left', codes: true },
          ],
        },
      ];
    }
    case 'front and back':
      return [
        {
          name: 'front',
          panel: whole,
          parts: [{ box, head: front, foot: 'net', align: 'centre', middle: true, picture: true }],
        },
        {
          name: 'back',
          panel: null,
          parts: [{ box, head: [...INFORMATION, ...USE, ...ORIGIN], align: 'left', codes: true }],
        },
      ];
    case 'jar top':
      return [
        {
          name: 'label',
          panel: whole,
          parts: [
            {
              box: { left: EDGE_MM, top: EDGE_MM, right: width - EDGE_MM, bottom: height - EDGE_MM },
              head: [...front, ...INFORMATION, ...USE, ...ORIGIN],
              foot: 'net',
              align: 'centre',
              round: true,
            },
          ],
        },
      ];
    case 'small jar': {
      const split = box.left + (width - 2 * EDGE_MM - GUTTER_MM) * 0.3;
      return [
        {
          name: 'label',
          panel: whole,
          parts: [
            { box, head: [], foot: 'net', align: 'left', codes: true, spans: true },
            { box: { ...box, right: split }, head: front, align: 'left', middle: true },
            {
              box: { ...box, left: split + GUTTER_MM },
              head: [...INFORMATION, ...USE, ...ORIGIN],
              align: 'left',
            },
          ],
        },
      ];
    }
  }
}

/** A fine rule between two parts of a piece: ours. */
const ruleBetween = (left: Box_mm, right: Box_mm, { accent }: LabelLook): Drawn => ({
  kind: 'block',
  field: 'rule',
  ink: accent,
  x_mm: (left.right + right.left) / 2 - 0.1,
  y_mm: right.top,
  width_mm: 0.2,
  height_mm: right.bottom - right.top,
});

/** Where others have to end above a part that lies beneath them. */
const floorOf = (items: readonly Drawn[], s: Setting): number =>
  Math.min(
    ...items.map(
      i => inkOf(i, s.fonts).top - (i.field === 'net' ? aboveNet_mm(s.least.net, s.fonts) : GUTTER_MM / 2),
    ),
  );

/** Sets every part of a piece as large as all of it fits. */
function setPiece(s: Setting, parts: readonly Part[], panel: Box_mm | null): Drawn[] | NoRoom {
  const items: Drawn[] = [];
  let floor = Infinity;
  let before: Box_mm | null = null;
  for (const whole of parts) {
    const part = { ...whole, box: { ...whole.box, bottom: Math.min(whole.box.bottom, floor) } };
    const ways = waysOf(part.codes ? s.ask.codes : [], s.ask.form, part.foot !== undefined);
    let way = 0;
    const at = (grow: number) => setPart(s, part, panel, grow, ways[way] as CodesAt);
    let best = at(0);
    while (isNoRoom(best) && way < ways.length - 1) {
      way++;
      best = at(0);
    }
    if (isNoRoom(best)) return best;
    let [low, high] = [0, 1];
    const largest = at(1);
    if (!isNoRoom(largest)) best = largest;
    else
      for (let i = 0; i < HALVINGS; i++) {
        const grow = (low + high) / 2;
        const made = at(grow);
        if (isNoRoom(made)) high = grow;
        else {
          best = made;
          low = grow;
        }
      }
    if (part.spans) floor = floorOf(best, s);
    else {
      if (before) items.push(ruleBetween(before, part.box, s.ask.look));
      before = part.box;
    }
    items.push(...best);
  }
  return items;
}

/**
 * Lays a label out: every word of it, at sizes the rules allow, inside its edges; or says what has no room. Nothing is cut off
 * and nothing is left out.
 *
 * @param fonts  metrics of the shipped faces
 */
export function layOut(ask: LabelAsk, fonts: Fonts): LabelLayout {
  const faults = shapeFaults(ask);
  if (faults.length > 0) return { ok: false, faults };
  const fields = labelFields(ask.label, day => dayText(day, { locale: ask.label.locale }));
  for (const [field, spans] of fields)
    faults.push(...textFaults(spans.map(x => x.text).join(''), fonts, `label.${field}`, FIELD_NAMES[field]));
  if (faults.length > 0) return { ok: false, faults };
  const unseen = ask.codes.length > 0 ? codeInkFault(ask.look.ink, ask.look.ground) : null;
  if (unseen) return { ok: false, faults: [unseen] };
  const least = leastSizes(ask.label, ask.container, ask.design, fonts);
  const setting: Setting = { ask, fonts, least, fields, measured: new Map() };
  const pieces: LabelPiece[] = [];
  for (const { name, panel, parts } of piecesOf(ask)) {
    const items = setPiece(setting, parts, panel);
    if (isNoRoom(items)) return { ok: false, faults: [noRoomFault(items)] };
    pieces.push({
      name,
      panel,
      drawing: {
        width_mm: ask.size_mm.width,
        height_mm: ask.size_mm.height,
        round: ask.shape === 'round',
        ground: ask.look.ground,
        items,
      },
    });
  }
  return { ok: true, pieces, least };
}

/** Designs whose shape their stock has to have, and measures that no label has. */
function shapeFaults({ design, shape, size_mm, container }: LabelAsk): Fault[] {
  if ((design === 'jar top') !== (shape === 'round'))
    return [
      {
        path: 'stock',
        code: 'other-shape',
        what: design === 'jar top' ? 'A jar-top label is round.' : `The design "${design}" is not round.`,
        why: 'Its text would run over the edge.',
        next:
          design === 'jar top' ? 'Choose round stock.' : 'Choose stock with corners, or the jar-top design.',
      },
    ];
  if (!(Math.min(size_mm.width, size_mm.height) > 2 * EDGE_MM + 4))
    return [
      {
        path: 'stock',
        code: 'too-small',
        what: 'This stock is too small for any words.',
        why: `${EDGE_MM} mm stay free at each edge.`,
        next: 'Choose a larger one.',
      },
    ];
  if (!(container.across_mm > 0 && container.tall_mm > 0 && container.lid_mm > 0))
    return [
      {
        path: 'container',
        code: 'impossible-panel',
        what: 'The jar has no measures.',
        why: 'The height of the net contents hangs on its panel.',
        next: 'Measure across the body and its height without the shoulder.',
      },
    ];
  return [];
}

/** What each field is called to somebody. */
export const FIELD_NAMES: Record<LabelField, string> = {
  identity: 'The name of the food',
  notForSale: 'The words "Not for sale"',
  ingredients: 'The list of ingredients',
  contains: 'The line of allergens',
  shares: 'The share of juice or fruit',
  nutrition: 'The nutrition facts',
  directions: 'The directions',
  keeping: 'The advice on keeping it',
  statement: "The place's statement",
  words: 'Your own words',
  maker: 'The maker and address',
  lot: 'The lot code with its dates',
  net: 'The net contents',
};

const noRoomFault = ({ field, tooWide }: NoRoom): Fault => {
  const name = field === 'code' ? 'What is to be scanned' : FIELD_NAMES[field as LabelField];
  return {
    path: 'stock',
    code: 'does-not-fit',
    what:
      tooWide === null
        ? `${name} does not fit this label at a size the rules allow.`
        : `"${tooWide.length > 40 ? `${tooWide.slice(0, 40)}…` : tooWide}" in ${name.toLowerCase()} is wider than this label at a size the rules allow.`,
    why: 'Nothing is cut off, and no letter is set smaller than the rules allow.',
    next: 'Choose a larger label or another design, or shorten the words.',
  };
};
