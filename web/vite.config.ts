import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** The interface. No inline script, for the content security policy; every view but the shell loads when it is opened. */
export default defineConfig({
  root: import.meta.dirname,
  plugins: [react()],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    modulePreload: { polyfill: false },
    assetsInlineLimit: 0,
    target: 'es2022',
    manifest: true,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4600' } },
});
