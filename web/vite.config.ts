import react from '@vitejs/plugin-react';
import tailwindcss from '@tailwindcss/vite';
import { readFileSync } from 'node:fs';
import { defineConfig, type Plugin } from 'vite';

/** The server draws pictures with the same families: whole fonts, in the older wrapping that it can take off. */
function fontsForPictures(): Plugin {
  return {
    name: 'fonts-for-pictures',
    apply: 'build',
    generateBundle() {
      for (const name of ['source-sans-3-latin-400', 'source-sans-3-latin-700', 'fraunces-latin-500']) {
        const family = name.replace(/-latin.*/, '');
        this.emitFile({
          type: 'asset',
          fileName: `assets/${name}-normal.woff`,
          source: readFileSync(
            new URL(`node_modules/@fontsource/${family}/files/${name}-normal.woff`, import.meta.url),
          ),
        });
      }
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), fontsForPictures()],
  // The server puts a fresh nonce in the place of this word with every answer.
  html: { cspNonce: '__NONCE__' },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    modulePreload: { polyfill: false },
    // A data: address would need its own permission in the content security policy.
    assetsInlineLimit: 0,
    // The reviewer's page is loaded once from a program on the same machine or network, and kept; gzipped it is 316 kB.
    chunkSizeWarningLimit: 1_200,
    rollupOptions: { input: { index: 'index.html', device: 'device.html' } },
  },
  test: {
    environment: 'node',
    // Test files share a module graph: loading it anew for each took two thirds of the time. A test leaves nothing behind.
    pool: 'threads',
    isolate: false,
    maxWorkers: '100%',
    // On a machine that builds beside it a form takes its time; one that hangs is told all the same.
    // A limit that only what hangs reaches: a busy machine takes ten times as long as a quiet one.
    testTimeout: 600_000,
    hookTimeout: 600_000,
  },
} as Parameters<typeof defineConfig>[0]);
