import type { BodyOf, ParamsOf, ReplyOf, confirmPage, listConfirmations } from '@cocotte/contract';
import { type Fault, canonicalJson, numberText } from '@cocotte/core/measure';
import { type Confirmation, type Page, pageDifferences, pageOf } from '@cocotte/core/review';
import type { Trx } from '../house/database.ts';
import type { Call } from '../house/mount.ts';
import { HttpProblem, idTaken, notFound, problem } from '../house/problems.ts';
import { namesOf } from '../kitchen/outside.ts';
import { selectPapers } from '../kitchen/papers.ts';
import { readKitchen } from '../kitchen/service.ts';
import { selectVersion } from './queries.ts';

const SHOWN = 1000;

/** What the owners of a kitchen confirmed, newest first; of one subject, or of all. */
export async function selectConfirmations(
  trx: Trx,
  kitchenId: string,
  subject: string | null = null,
): Promise<Confirmation[]> {
  const found = trx('confirmations')
    .where({ kitchen_id: kitchenId })
    .orderBy([
      { column: 'confirmed_at', order: 'desc' },
      { column: 'confirmation_id', order: 'desc' },
    ])
    .limit(SHOWN);
  if (subject !== null) found.where({ subject });
  return (await found).map(r => ({
    id: r.confirmation_id as string,
    subject: r.subject as string,
    title: r.title as string,
    edition: r.edition as string,
    page: r.page as string,
    figures: r.figures as Confirmation['figures'],
    papers: r.papers as string[],
    demo: r.demo as boolean,
    personId: r.person_id as string,
    confirmedAt: new Date(r.confirmed_at as string).toISOString(),
  }));
}

/** Pages that were confirmed, newest first. */
export async function list(
  call: Call<unknown, unknown, unknown>,
): Promise<ReplyOf<typeof listConfirmations>> {
  const rows = await selectConfirmations(call.trx, call.kitchenId);
  const names = await namesOf(call.trx, [...new Set(rows.map(r => r.personId))]);
  return { confirmations: rows.map(r => ({ ...r, person: names[r.personId] ?? '' })) };
}

/**
 * Keeps what an owner read off the open page, every figure of it held against what stands here. One that differs stops it
 * with both figures: then the copy, or this program, is wrong, and neither is believed.
 */
export async function confirm(
  call: Call<ParamsOf<typeof confirmPage>, unknown, BodyOf<typeof confirmPage>>,
): Promise<ReplyOf<typeof confirmPage>> {
  const { trx, kitchenId, params, body, person, clock } = call;
  const there = await trx('confirmations')
    .where({ kitchen_id: kitchenId, confirmation_id: body.id })
    .first('edition', 'page', 'figures');
  if (there) {
    const now = { edition: body.edition, page: body.page, figures: body.figures };
    if (canonicalJson(there) === canonicalJson(now)) return { id: body.id };
    throw idTaken('confirmation');
  }
  const version = await selectVersion(trx, kitchenId, params.recipeId, body.number);
  if (!version) throw notFound('This version of the recipe');
  const kitchen = await readKitchen(call);
  if (!kitchen.placed)
    throw problem(422, {
      code: 'kitchen-not-set-up',
      what: 'Nobody has entered where this kitchen stands.',
      why: 'The minutes on the page are read for its altitude.',
      next: 'An owner enters it in the settings of the kitchen; then confirm the page.',
    });
  const page = pageOf(version.recipe, kitchen.altitude_m, kitchen);
  if (!page)
    throw problem(422, {
      code: 'no-page',
      what: 'This recipe stands on no page.',
      why: 'Its authority gives it no heat step, so there is nothing to read off.',
      next: 'Look at what its review says first.',
    });
  const faults = faultsOf(page, body.figures, kitchen);
  if (faults.length > 0) throw new HttpProblem(422, faults[0]?.code ?? 'page-differs', faults);
  const papers = await selectPapers(trx, kitchenId, page.subject);
  if (page.asksPaper && !kitchen.demo && papers.length === 0)
    throw problem(422, {
      code: 'no-paper',
      what: `${page.title} itself is not here.`,
      why: 'What somebody typed of a letter is not the letter: anybody could have written it.',
      next: 'Attach a picture or a PDF of it at the recipe, then confirm it from there.',
    });
  await trx('confirmations').insert({
    kitchen_id: kitchenId,
    confirmation_id: body.id,
    subject: page.subject,
    title: page.title,
    edition: body.edition,
    page: body.page,
    figures: JSON.stringify(body.figures),
    papers: JSON.stringify(papers.map(p => p.id)),
    demo: kitchen.demo,
    person_id: person.id,
    confirmed_at: new Date(clock.now_ms()).toISOString(),
  });
  return { id: body.id };
}

function faultsOf(
  page: Page,
  typed: Confirmation['figures'],
  kitchen: Parameters<typeof numberText>[1],
): Fault[] {
  const n = (value: number) => numberText(value, kitchen);
  const at = (key: string) => `figures[${typed.findIndex(t => t.key === key)}].value`;
  const known = new Set(page.figures.map(f => f.key));
  const read = new Set(typed.map(t => t.key));
  const astray = typed.filter((t, i) => !known.has(t.key) || typed.findIndex(o => o.key === t.key) !== i);
  return [
    ...astray.map(t => ({
      path: at(t.key),
      code: 'not-on-page',
      what: 'That figure is not asked of this page, or is there twice.',
      why: 'What is confirmed is what the heat step stands on.',
      next: 'Reload and read the page again.',
    })),
    ...page.figures
      .filter(f => !read.has(f.key))
      .map(f => ({
        path: 'figures',
        code: 'not-read',
        what: `${f.label} was not read off the page.`,
        why: 'A figure that nobody read is still one from memory.',
        next: 'Enter what the page prints.',
      })),
    ...pageDifferences(page, typed).map(d => ({
      path: at(d.key),
      code: 'page-differs',
      what:
        d.words === null
          ? `The page says ${n(d.typed)}${d.unit && ` ${d.unit}`}, here stands ${n(d.value)}.`
          : `The page does not say what stands here: ${d.words}.`,
      why: 'One of the two is wrong, and no batch for sale rests on either until they agree.',
      next: 'Read it once more: the row of this jar, the column of this altitude, this edition. If it prints what you typed, do not cook by this entry: give the recipe that publication with its own time.',
    })),
  ];
}
