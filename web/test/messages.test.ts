import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import IntlMessageFormat from 'intl-messageformat';
import { describe, expect, it } from 'vitest';
import { figuresAsIn } from '../src/words/index.ts';
import { type MessageId, messages as en, misread, say } from '../src/words/views.ts';

const SOURCE = fileURLToPath(new URL('../src/', import.meta.url));
const ids = Object.keys(en) as MessageId[];

/** Every file of the interface but the messages themselves. */
function sources(): string {
  return readdirSync(SOURCE, { recursive: true, encoding: 'utf8' })
    .filter(name => /\.tsx?$/.test(name) && !/words.(views\.)?en\.ts$/.test(name))
    .map(name => readFileSync(join(SOURCE, name), 'utf8'))
    .join('\n');
}

type Ast = ReturnType<IntlMessageFormat['getAst']>;
/** What stands in the braces of a message; a literal text, which the parser numbers 0, does not. */
function placesOf(elements: Ast): string[] {
  return elements.flatMap(e => {
    if ('options' in e) return [e.value, ...Object.values(e.options).flatMap(o => placesOf(o.value))];
    return e.type !== 0 && 'value' in e ? [e.value] : [];
  });
}
const valuesFor = (id: MessageId, value: number) =>
  Object.fromEntries(placesOf(new IntlMessageFormat(en[id], 'en').getAst()).map(name => [name, value]));

/** So many of what is counted in a message; whatever else stands in it is a word. */
const counting = (id: MessageId, n: number) =>
  Object.fromEntries(
    placesOf(new IntlMessageFormat(en[id], 'en').getAst()).map(name => [
      name,
      en[id].includes(`{${name}, plural`) ? n : 'x',
    ]),
  );

describe('the messages', () => {
  it('are all said somewhere, and nothing is said that is not among them', () => {
    const text = sources();
    const nameOf = (id: string) => id.replace(/^fault\.([^.]+).*/, '$1');
    // One of a family is named by its beginning; which one, the compiler knows.
    const families = new Set([...text.matchAll(/\bsay\(\s*`([\w.]+)\.\$\{/g)].map(m => m[1] as string));
    const isSaid = (id: string) =>
      text.includes(`'${nameOf(id)}'`) || families.has(id.slice(0, id.lastIndexOf('.')));
    expect(ids.filter(id => !isSaid(id))).toEqual([]);
    const said = [...text.matchAll(/\bsay\(\s*'([^']+)'/g)].map(m => m[1] as string);
    expect(said.length).toBeGreaterThan(30);
    expect(said.filter(id => !(id in en))).toEqual([]);
  });

  it('are whole sentences for none, one and many, with no brace or hole left in them', () => {
    for (const id of ids)
      for (const n of [0, 1, 2, 1234]) {
        const text = say(id, valuesFor(id, n));
        expect({ id, text }).toEqual({ id, text: expect.not.stringMatching(/[{}#]|undefined|NaN| {2}/) });
        expect(text.trim()).toBe(text);
        expect(text).not.toBe('');
      }
  });

  it('say one of a thing and two of them differently, and large figures as the language writes them', () => {
    const plural = ids.filter(id => en[id].includes('plural'));
    expect(plural.length).toBeGreaterThan(2);
    for (const id of plural) {
      expect(say(id, counting(id, 1))).not.toContain('1');
      expect(say(id, counting(id, 1234))).toContain('1,234');
      figuresAsIn({ locale: 'de-DE' });
      expect(say(id, counting(id, 1234))).toContain('1.234');
      figuresAsIn({ locale: 'en' });
    }
  });

  it('have a why and a next for each fault, and are told with them', () => {
    const faults = ids.filter(id => /^fault\.[^.]+$/.test(id));
    expect(faults.length).toBeGreaterThan(10);
    for (const id of faults) expect([`${id}.why`, `${id}.next`].filter(of => !(of in en))).toEqual([]);
    expect(misread('wrong-measure', { kind: 'mass' }).fault).toEqual({
      path: '',
      code: 'wrong-measure',
      what: 'Measure it as a weight.',
      why: 'What hangs on it is reckoned so.',
      next: 'Enter it like 2 kg.',
    });
  });

  it('are not all of what is said: a figure that is missing is refused rather than left out', () => {
    expect(() => say('outbox.kept')).toThrow();
  });
});
