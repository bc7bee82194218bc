import { readFileSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import fontkit from '@pdf-lib/fontkit';
import { describe, expect, it } from 'vitest';
import { firstLoad } from '../../testing/first-load.ts';

const ROOT = join(import.meta.dirname, '../..');
const DIST = join(ROOT, 'dist/web');
const FIRST_LOAD_LIMIT_KB = 280;

describe('what the browser loads first', () => {
  it(`is at most ${FIRST_LOAD_LIMIT_KB} KB of JavaScript, gzipped, with Today in it`, () => {
    const { bytes, files } = firstLoad(DIST);
    console.log(`first load: ${(bytes / 1000).toFixed(1)} KB gzipped in ${files} files`);
    expect(files).toBeGreaterThan(2);
    expect(bytes).toBeLessThanOrEqual(FIRST_LOAD_LIMIT_KB * 1000);
  });

  it('holds no inline script and loads nothing from elsewhere', () => {
    const html = readFileSync(join(DIST, 'index.html'), 'utf8');
    expect(html).not.toMatch(/<script(?![^>]*src=)[^>]*>/);
    expect(html).not.toMatch(/https?:\/\//);
  });
});

/** Text of ours, from sources and from what we draw on paper. */
function* sources(folder: string): Generator<string> {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (name === 'node_modules' || name === 'dist' || name === 'test') continue;
    if (statSync(path).isDirectory()) yield* sources(path);
    else if (/\.(ts|tsx)$/.test(name) && !name.endsWith('.test.ts')) yield path;
  }
}

describe('type', () => {
  it('has a glyph for every character of ours in both faces', () => {
    const face = (name: string) =>
      fontkit.create(readFileSync(join(ROOT, 'node_modules', name)) as never) as unknown as {
        hasGlyphForCodePoint: (c: number) => boolean;
      };
    const faces = [
      face(
        '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf',
      ),
      face('@expo-google-fonts/fraunces/600SemiBold/Fraunces_600SemiBold.ttf'),
    ];
    const missing = new Map<string, string>();
    for (const room of ['core', 'contract', 'server/src', 'web/src', 'demo']) {
      for (const path of sources(join(ROOT, room))) {
        const code = readFileSync(path, 'utf8')
          .replaceAll(/\/\*[\s\S]*?\*\//g, '')
          .replaceAll(/^\s*\/\/.*$/gm, '');
        for (const char of code) {
          const point = char.codePointAt(0) ?? 0;
          if (
            point > 126 &&
            !READ_NOT_SHOWN.includes(char) &&
            faces.some(f => !f.hasGlyphForCodePoint(point))
          )
            missing.set(char, path);
        }
      }
    }
    expect([...missing]).toEqual([]);
  });
});

/** Characters that core reads when they are typed, and never writes. */
const READ_NOT_SHOWN = '¼½¾⅓⅔⅛⅜⅝⅞£€¥';
