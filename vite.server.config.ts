import { builtinModules } from 'node:module';
import { readFileSync } from 'node:fs';
import { defineConfig } from 'vite';

const dependencies = ['core', 'contract', 'server'].flatMap(room =>
  Object.keys(
    (JSON.parse(readFileSync(`${room}/package.json`, 'utf8')) as { dependencies?: object }).dependencies ??
      {},
  ),
);

/** The programs that run on Node, bundled from our own sources; packages stay outside. */
export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist/server',
    target: 'node20',
    minify: false,
    emptyOutDir: true,
    rollupOptions: {
      input: { main: 'server/src/main.ts', cli: 'server/src/cli.ts', seed: 'demo/main.ts' },
      output: { entryFileNames: '[name].mjs', chunkFileNames: 'shared/[name]-[hash].mjs' },
      external: [
        ...builtinModules,
        /^node:/,
        ...dependencies.filter(d => !d.startsWith('@cocotte/')),
        /^bwip-js/,
        /^@node-rs/,
        /^@expo-google-fonts/,
      ],
    },
  },
  ssr: { noExternal: [/^@cocotte\//] },
});
