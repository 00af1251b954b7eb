import react from '@vitejs/plugin-react';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';
import { compiledValidatorsForVite } from '../scripts/compiled-validators.mjs';
import { shippedScriptsForVite } from '../scripts/shipped-scripts.mjs';

const here = fileURLToPath(new URL('.', import.meta.url));

export default defineConfig({
  root: here,
  plugins: [react(), compiledValidatorsForVite(), shippedScriptsForVite()],
  worker: { format: 'es', plugins: () => [compiledValidatorsForVite(), shippedScriptsForVite()] },
  resolve: { alias: { '@periwinkle/core': fileURLToPath(new URL('../core', import.meta.url)) } },
  build: {
    outDir: `${here}dist`,
    emptyOutDir: true,
    sourcemap: false,
    chunkSizeWarningLimit: 2000,
    assetsInlineLimit: 0,
  },
  css: {
    preprocessorOptions: {
      scss: {
        quietDeps: true,
        silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
      },
    },
  },
  server: { proxy: { '/api': process.env['PERIWINKLE_API'] ?? 'http://127.0.0.1:4848' } },
});
