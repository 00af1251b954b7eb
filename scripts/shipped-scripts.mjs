import { buildSync } from 'esbuild';
import { readdirSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const NAME = 'periwinkle:shipped';
const modules = fileURLToPath(new URL('../core/runtime/modules', import.meta.url));

/** The modules that ship with every system, by name of the file: text, and the files that each asks for. */
export function shippedScripts() {
  const { outputFiles, metafile } = buildSync({
    entryPoints: readdirSync(modules).map(file => join(modules, file)),
    bundle: true,
    splitting: true,
    format: 'esm',
    target: 'es2022',
    minify: true,
    legalComments: 'none',
    charset: 'utf8',
    write: false,
    metafile: true,
    // Fields without a value need no words.
    tsconfigRaw: { compilerOptions: { useDefineForClassFields: false } },
    outdir: modules,
    chunkNames: 'part-[hash]',
  });
  const needs = new Map(
    Object.entries(metafile.outputs).map(([path, { imports }]) => [
      basename(path),
      imports.map(each => basename(each.path)),
    ]),
  );
  return Object.fromEntries(
    outputFiles
      .map(({ path, text }) => [basename(path), { text, needs: needs.get(basename(path)) ?? [] }])
      .sort(([one], [other]) => (one < other ? -1 : 1)),
  );
}

const contents = () => `export const SCRIPTS = ${JSON.stringify(shippedScripts())};`;

/** As a plugin of esbuild. */
export const shippedScriptsModule = {
  name: 'shipped-scripts',
  setup({ onResolve, onLoad }) {
    onResolve({ filter: /^periwinkle:shipped$/ }, () => ({ path: NAME, namespace: 'shipped' }));
    onLoad({ filter: /.*/, namespace: 'shipped' }, () => ({ contents: contents(), loader: 'js' }));
  },
};

/** As a plugin of Vite. */
export const shippedScriptsForVite = () => ({
  name: 'shipped-scripts',
  enforce: 'pre',
  resolveId: id => (id === NAME ? `\0${NAME}` : null),
  load: id => (id === `\0${NAME}` ? { code: contents(), moduleType: 'js' } : null),
});
