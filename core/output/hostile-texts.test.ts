import { freshSeed, runsOf } from '../test/runs';
import fc from 'fast-check';
import { checkSystem } from '../checks/check-system';
import { demoDocuments } from '../test/demo';
import { fuzzText } from '../test/fuzz-text';
import { everyText, expectHarmless, withText } from '../test/harmless';
import { outputFiles } from './outputs';
import { systemFolder } from './system-folder';

/**
 * Whatever stands in a document's texts, what is emitted of it never throws, and nothing of it gets out of its place. More by
 * PERIWINKLE_RUNS.
 */

const INPUTS = runsOf('hostile texts');
/** Texts that are changed at once, at most; half of it on average. */
const AT_ONCE = 12;
/** Some of the demo, small enough to be emitted a hundred thousand times. */
const KEPT = ['label', 'message', 'counter', 'step-button', 'code-box'];
const documents = new Map(
  [...demoDocuments()].filter(
    ([path]) =>
      !/^(components|trials|guide)\//.test(path) ||
      KEPT.some(name => path === `components/${name}.component.json`),
  ),
);
const manifest = documents.get('system.json') as { order: string[] };
documents.set('system.json', { ...manifest, order: manifest.order.filter(id => KEPT.includes(id)) });
function emitted(of: ReadonlyMap<string, unknown>) {
  const { system, problems } = checkSystem(of);
  const files = outputFiles(system, system.components, { host: true });
  return { files, folder: systemFolder(system), problems };
}

test('what is fuzzed is sound', () => {
  // What runs for the first time takes longer than any input does later.
  const { problems } = emitted(documents);
  expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
});

const places = [...documents].flatMap(([path, body]) => everyText(body).map(at => ({ path, at })));

test('stylesheets, pages and folders of systems with anything in their texts', () => {
  let slowest = 0;
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom(...places), fuzzText), { minLength: 1, maxLength: AT_ONCE }),
      changes => {
        const changed = new Map(documents);
        for (const [{ path, at }, text] of changes) {
          // A text before it may have taken the place away.
          if (everyText(changed.get(path)).some(each => each.join('/') === at.join('/')))
            changed.set(path, withText(changed.get(path), at, text));
        }
        const began = performance.now();
        const { files, folder } = emitted(changed);
        slowest = Math.max(slowest, performance.now() - began);
        expectHarmless(files);
        expect(folder.length).toBeGreaterThan(0);
      },
    ),
    { numRuns: Math.ceil(INPUTS / (AT_ONCE / 2)), seed: freshSeed('fuzz of emitters'), endOnFailure: false },
  );
  process.stderr.write(`fuzz of emitters: the slowest took ${slowest.toFixed(0)} ms\n`);
}, 7_200_000);
