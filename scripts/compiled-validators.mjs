import Ajv from 'ajv';
import standaloneCode from 'ajv/dist/standalone/index.js';
import { build } from 'esbuild';

/** For the command line: schemas are compiled when it is built instead of each time it is started. */
export const compiledValidators = {
  name: 'compiled-validators',
  setup({ onLoad }) {
    onLoad({ filter: /core\/formats\/validators\.ts$/ }, async ({ path }) => {
      const { SCHEMAS, VALIDATION } = await exportsOf(path.replace('validators.ts', 'schemas.ts'));
      const ajv = new Ajv({ ...VALIDATION, code: { source: true, esm: true } });
      for (const [kind, schema] of Object.entries(SCHEMAS)) ajv.addSchema(schema, kind);
      const names = Object.fromEntries(Object.keys(SCHEMAS).map(kind => [kind, kind]));
      const code = standaloneCode.default(ajv, names);
      const table = Object.keys(SCHEMAS).join(', ');
      return {
        contents: `${code}\nconst validators = { ${table} };\nexport const validatorFor = kind => validators[kind];\n`,
        loader: 'js',
      };
    });
  },
};

/** What a module in TypeScript exports that needs no package. */
async function exportsOf(file) {
  const { outputFiles } = await build({ entryPoints: [file], bundle: true, format: 'esm', write: false });
  return import(`data:text/javascript,${encodeURIComponent(outputFiles[0].text)}`);
}
