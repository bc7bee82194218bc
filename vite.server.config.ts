import { readFileSync } from 'node:fs';
import { builtinModules } from 'node:module';
import { defineConfig } from 'vite';

const dependencies = ['core', 'contract', 'server', 'devices'].flatMap(room =>
  Object.keys(
    (JSON.parse(readFileSync(`${room}/package.json`, 'utf8')) as { dependencies?: object }).dependencies ??
      {},
  ),
);

/** The programs that run on Node, bundled from our own sources; packages stay outside. `--mode bench` builds the benchmark. */
export default defineConfig(({ mode }) => ({
  build: {
    ssr: true,
    outDir: mode === 'bench' ? 'dist/bench' : 'dist/server',
    target: 'node20',
    minify: false,
    emptyOutDir: true,
    rollupOptions: {
      input: (mode === 'bench'
        ? { bench: 'bench/main.ts', csv: 'bench/csv-reader.ts' }
        : {
            main: 'server/src/main.ts',
            cli: 'server/src/cli.ts',
            heavy: 'server/src/heavy/worker.ts',
            seed: 'demo/main.ts',
            devices: 'devices/main.ts',
          }) as Record<string, string>,
      output: { entryFileNames: '[name].mjs', chunkFileNames: 'shared/[name]-[hash].mjs' },
      external: [
        ...builtinModules,
        /^node:/,
        ...dependencies.filter(d => !d.startsWith('@cocotte/')),
        /^bwip-js/,
        /^@playwright\//,
        'hyperformula',
        /^@node-rs/,
        /^@expo-google-fonts/,
      ],
    },
  },
  ssr: { noExternal: [/^@cocotte\//] },
}));
