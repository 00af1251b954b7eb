import Ajv from 'ajv';
import standaloneCode from 'ajv/dist/standalone/index.js';
import { build } from 'esbuild';
import { realpathSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Throws where it is not there: without it browsers would have to make code of text. */
const MODULE = realpathSync(fileURLToPath(new URL('../core/documents/validators.ts', import.meta.url)));

/**
 * Schemas compiled when something is built instead of each time it is started. The command line is there sooner for it, and browsers,
 * which may not make code of text here, can check at all.
 */
async function compiled(path) {
  const { SCHEMAS, VALIDATION } = await exportsOf(path.replace('validators.ts', 'schemas.ts'));
  const ajv = new Ajv({ ...VALIDATION, code: { source: true, esm: true } });
  for (const [kind, schema] of Object.entries(SCHEMAS)) ajv.addSchema(schema, kind);
  const names = Object.fromEntries(Object.keys(SCHEMAS).map(kind => [kind, kind]));
  const code = standaloneCode.default(ajv, names);
  const table = Object.keys(SCHEMAS).join(', ');
  const contents = `${code}\nconst validators = { ${table} };\nexport const validatorFor = kind => validators[kind];\n`;
  // What it needs at run time is put in: it is asked for as modules that only Node knows.
  const stdin = { contents, resolveDir: dirname(path), loader: 'js' };
  const { outputFiles } = await build({ stdin, bundle: true, format: 'esm', write: false });
  return outputFiles[0].text;
}

/** As a plugin of esbuild. */
export const compiledValidators = {
  name: 'compiled-validators',
  setup({ onLoad }) {
    onLoad({ filter: /validators\.ts$/ }, async ({ path }) =>
      path === MODULE ? { contents: await compiled(path), loader: 'js' } : null,
    );
  },
};

/** As a plugin of Vite. */
export const compiledValidatorsForVite = () => ({
  name: 'compiled-validators',
  enforce: 'pre',
  async load(id) {
    return id === MODULE ? { code: await compiled(id), moduleType: 'js' } : null;
  },
});

/** What a module in TypeScript exports that needs no package. */
async function exportsOf(file) {
  const { outputFiles } = await build({ entryPoints: [file], bundle: true, format: 'esm', write: false });
  return import(`data:text/javascript,${encodeURIComponent(outputFiles[0].text)}`);
}
