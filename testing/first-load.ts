import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

interface Chunk {
  file: string;
  imports?: string[];
  isEntry?: boolean;
}

/**
 * What a browser loads before Today stands: the entry, that view, and all they import.
 *
 * @param dist  folder of the built interface
 * @returns bytes of JavaScript, gzipped, and how many files they lie in
 */
export function firstLoad(dist: string): { bytes: number; files: number } {
  const manifest = JSON.parse(readFileSync(join(dist, '.vite/manifest.json'), 'utf8')) as Record<
    string,
    Chunk
  >;
  const files = new Set<string>();
  const take = (name: string): void => {
    const chunk = manifest[name];
    if (!chunk || files.has(chunk.file)) return;
    files.add(chunk.file);
    for (const next of chunk.imports ?? []) take(next);
  };
  for (const [name, chunk] of Object.entries(manifest))
    if (chunk.isEntry || name.endsWith('TodayPage.tsx')) take(name);
  const scripts = [...files].filter(f => f.endsWith('.js'));
  return {
    bytes: scripts.reduce((sum, f) => sum + gzipSync(readFileSync(join(dist, f))).length, 0),
    files: scripts.length,
  };
}
