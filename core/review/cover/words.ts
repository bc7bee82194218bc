import { type Cover, type CoverLine, COVERS } from '../data/covers.ts';
import { under } from '../../measure/index.ts';
import type { ProcessEntry } from '../../times/index.ts';
import { shipped } from './weighed.ts';

const nameOf = (part: CoverLine): string =>
  part.ids.map(id => shipped(id)?.name.toLowerCase() ?? id).join(' or ');

/** "4 lb of snap beans". */
const amountOf = (part: CoverLine): string =>
  part.amount ? `${part.amount} of ${nameOf(part)}` : nameOf(part);

/**
 * What a published entry covers, as one reads it before writing a recipe: each formula in a sentence or two. Empty for an
 * entry that is not known.
 */
export function coverText(entry: Pick<ProcessEntry, 'id' | 'cleanFormOf'>): string[] {
  return (under(COVERS, entry.cleanFormOf ?? entry.id) ?? []).map(sentences);
}

function sentences(cover: Cover): string {
  const main = cover.food.filter(f => f.main);
  const beside = cover.food.filter(f => !f.main);
  const of = cover.anyAcidFruit ? 'fruit that is acid by itself' : main.map(amountOf).join(' and ');
  const parts = [
    `Of ${of}${beside.length === 0 ? '' : `; at most ${beside.map(f => (f.amount ? amountOf(f) : `${nameOf(f)} as liked`)).join('; ')}`}.`,
  ];
  if (cover.acid.length > 0) {
    const acid = cover.acid.map(a => amountOf({ ...a, ids: a.ids.slice(0, 1) })).join(' and ');
    const water = cover.water
      ? `, to ${cover.water} of water at most`
      : cover.water === ''
        ? ', and no water'
        : '';
    parts.push(`At least ${acid}${water}.`);
  } else if (cover.water === '') parts.push('No liquid goes in.');
  if (cover.oil) parts.push(`Oil to ${cover.oil}.`);
  if (cover.starch) parts.push(`Cook-type modified starch to ${cover.starch}.`);
  if (cover.sugarForFruit > 0) parts.push('With half its weight of sugar or more.');
  const method = [cover.peel.join(' or '), cover.cut.join(' or ')].filter(Boolean).join(', ');
  if (method) parts.push(`${method}.`);
  return parts.map(p => p.charAt(0).toUpperCase() + p.slice(1)).join(' ');
}
