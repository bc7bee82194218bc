import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** The interface. No inline script, for the content security policy; every view but the shell loads when it is opened. */
export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    VitePWA({
      // A new build waits until every page of the old one is closed: nothing that runs is ever reloaded.
      registerType: 'prompt',
      injectRegister: false,
      manifest: {
        name: 'Cocotte',
        short_name: 'Cocotte',
        description: 'Plans, cooks, costs and keeps the record of preserves',
        theme_color: '#4B1E3F',
        background_color: '#FAF3E6',
        display: 'standalone',
        icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,woff2,svg}'],
        // Every page is the kept application, so that it opens without the kitchen; of what the kitchen says nothing is
        // kept here: records lie in the device's own store, papers nowhere.
        navigateFallback: 'index.html',
        // Pages of lots are the server's own: they are for anybody.
        navigateFallbackDenylist: [/^\/api\//, /^\/lot\//],
      },
    }),
  ],
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
