import { MM_PER_INCH, readNumber } from '@cocotte/core/measure';
import type { Authority, LetterTerms, Recipe } from '@cocotte/core/recipes';
import { type LetterProcess, type SeaLevelTime, processEntry } from '@cocotte/core/times';
import type { Draft } from './draft.ts';
import { type Reader, inCelsius } from './reader.ts';

/** What the recipe rests on, read; faults go to the reader. */
export function readAuthority(draft: Draft, reader: Reader, previous: Recipe | null): Authority {
  const before = previous?.authority;
  switch (draft.grade) {
    case 'own':
      return { grade: 'own', entryId: draft.entryId || null };
    case 'published, untested':
      return {
        grade: 'published, untested',
        title: reader.must('authority.title', draft.title, 'The title'),
      };
    case 'tested publication': {
      const entry = processEntry(draft.entryId);
      if (draft.time === 'entry') reader.must('authority.entryId', draft.entryId, 'The published entry');
      return {
        grade: 'tested publication',
        kind: draft.kind,
        title: draft.title.trim() || (entry?.source.title ?? reader.must('authority.title', '', 'The title')),
        edition:
          draft.edition.trim() ||
          (entry?.source.edition ?? reader.must('authority.edition', '', 'The edition')),
        year: reader.number(
          'authority.year',
          draft.year.trim() || (entry ? '2015' : ''),
          'The year',
          1900,
          2100,
          { whole: true },
        ),
        part:
          draft.part.trim() || (entry?.source.part ?? reader.must('authority.part', '', 'The page or part')),
        checkedOn: reader.must('authority.checkedOn', draft.checkedOn, 'The day you checked it'),
        fromMemory: draft.fromMemory,
        time:
          draft.time === 'entry' ? { kind: 'entry', entryId: draft.entryId } : readSeaLevel(draft, reader),
      };
    }
    case 'letter':
      return {
        grade: 'letter',
        authority: reader.must('authority.authority', draft.authority, 'The process authority'),
        reference: reader.must('authority.reference', draft.reference, 'The reference'),
        issuedOn: reader.must('authority.issuedOn', draft.issuedOn, 'The date of the letter'),
        demo: before?.grade === 'letter' && before.demo && before.reference === draft.reference,
        maxPh: reader.number('authority.maxPh', draft.maxPh, 'The pH limit', 2, 4.6),
        limits: draft.limits.trim(),
        terms: readTerms(draft, reader),
        process: readProcess(draft, reader),
      };
  }
}

/** What the letter names beside its heat step. */
function readTerms({ terms }: Draft, reader: Reader): LetterTerms {
  const at = 'authority.terms';
  const inches = reader.kitchen.measures === 'US';
  const size = reader.maybe(
    `${at}.pieceSize_mm`,
    terms.pieceSize_mm,
    'The size of a piece',
    inches ? 0.05 : 1,
    inches ? 7.5 : 190,
  );
  const percent = (field: string, text: string, name: string) => reader.maybe(field, text, name, 0, 100);
  return {
    producer: terms.producer.trim(),
    site: terms.site.trim(),
    pieceSize_mm: size !== null && inches ? size * MM_PER_INCH : size,
    perPint_g: reader.maybe(`${at}.perPint_g`, terms.perPint_g, 'The pieces in a pint in grams', 1, 600),
    lines: terms.lines.map((l, i) => ({
      lineId: l.lineId,
      least_pct: percent(`${at}.lines[${i}].least_pct`, l.least_pct, 'The least per cent'),
      most_pct: percent(`${at}.lines[${i}].most_pct`, l.most_pct, 'The most per cent'),
    })),
    thickener: terms.thickener.trim(),
    oil: terms.oil.trim(),
    closure: terms.closure.trim(),
    reviewOn: terms.reviewOn || null,
  };
}

/** Path of the heat step that is typed in: a letter's process, or the time of a publication. */
const heatPath = (draft: Draft) => (draft.grade === 'letter' ? 'authority.process' : 'authority.time');

/** As the kitchen measures: in inches, or in millimetres. */
function headspace_mm(draft: Draft, reader: Reader): number {
  const inches = reader.kitchen.measures === 'US';
  const read = reader.take(
    `${heatPath(draft)}.headspace_mm`,
    readNumber(draft.headspace_mm, reader.kitchen.locale, {
      name: inches ? 'The headspace in inches' : 'The headspace in millimetres',
      min: 0,
      above: true,
      max: inches ? 1.5 : 38,
      why: 'A jar filled to the brim pushes its lid off in the canner.',
    }),
    inches ? 0.5 : 12.7,
  );
  return inches ? read * MM_PER_INCH : read;
}

const minutes = (text: string, path: string, reader: Reader) =>
  reader.number(path, text, 'The minutes', 1, 240, { whole: true });

function readSeaLevel(draft: Draft, reader: Reader): SeaLevelTime {
  return {
    kind: 'sea level',
    pack: draft.pack,
    headspace_mm: headspace_mm(draft, reader),
    minutes: draft.seaLevel.map((m, i) => ({
      jarSize: m.size,
      minutes: minutes(m.minutes[0] ?? '', `seaLevel.${i}.minutes.0`, reader),
    })),
  };
}

function readProcess(draft: Draft, reader: Reader): LetterProcess {
  if (draft.process === 'sea level') return readSeaLevel(draft, reader);
  if (draft.process === 'boiling water')
    return {
      kind: 'boiling water',
      pack: draft.pack,
      headspace_mm: headspace_mm(draft, reader),
      minutes: draft.letter.map((m, i) => ({
        jarSize: m.size,
        byAltitude: draft.tops.map((upTo_ft, k) => ({
          upTo_ft,
          minutes: minutes(m.minutes[k] ?? '', `letter.${i}.minutes.${k}`, reader),
        })),
      })),
    };
  const inF = reader.kitchen.temperature === 'F';
  const degrees = reader.number(
    'authority.process.temp_C',
    draft.temp_C,
    'The fill temperature',
    inF ? 158 : 70,
    inF ? 221 : 105,
    {
      unit: ` °${reader.kitchen.temperature}`,
    },
  );
  return {
    kind: 'hot-fill-hold',
    temp_C: inF ? inCelsius(degrees) : degrees,
    hold_min: reader.number('authority.process.hold_min', draft.hold_min, 'The minutes held', 0.5, 60),
    headspace_mm: headspace_mm(draft, reader),
    jarSizes: draft.fillSizes,
  };
}
