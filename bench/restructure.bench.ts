/**
 * An option's value under another id, named by 200 rules, 40 plates and six derived components: what the edit costs in the core, from the
 * wish to patches that are applied both ways, and checked, beside one edit of one rule.
 */
import { dryRun } from '@periwinkle/core/edits/dry-run';
import { compileSystem } from '@periwinkle/core/components/system';
import { renameValue } from '@periwinkle/core/edits/axis-edits';
import { patchesBetween } from '@periwinkle/core/edits/restructure';
import type {
  ComponentDocument,
  DerivedDocument,
  RuleDocument,
} from '@periwinkle/core/documents/component-document';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { generatedComponent, generatedSystem, median, timed } from './support/generated';

const LIMIT_MS = 100;
const ROUNDS = 15;
const DERIVED = 6;

const own = generatedComponent({ id: 'field', axes: [4, 3, 3, 2], rules: 40, limits: 3 }, 5);
const naming = (index: number): RuleDocument => ({
  id: `named${index}`,
  when: { x0: index % 2 ? 'v1' : ['v1', 'v2'], x1: `v${index % 3}` },
  set: { frame: { opacity: `0.${(index % 9) + 1}` } },
});
const field: ComponentDocument = {
  ...own,
  rules: [...own.rules!, ...Array.from({ length: 200 }, (_, index) => naming(index))],
  plates: Array.from({ length: 40 }, (_, index) => ({
    id: `plate${index}`,
    across: ['x1'],
    down: ['x2'],
    hold: { x0: 'v1' },
  })),
};
const derived = Array.from({ length: DERIVED }, (_, index): DerivedDocument => ({
  format: 'periwinkle-component/1',
  id: `derived${index}`,
  extends: 'field',
  rules: Array.from({ length: 10 }, (_, number) => ({ ...naming(number), id: `own${number}` })),
  axes: [{ id: 'x0', values: ['v0', 'v1', 'v2'].map(id => ({ id })) }],
}));

const documents = generatedSystem([field]);
for (const each of derived) documents.set(`components/${each.id}.component.json`, each);

const system = compileSystem(documents);
const edit = renameValue('field', 'x0', 'v1', 'other');
const applied = (patches: ReturnType<typeof patchesBetween>): Map<string, unknown> => {
  const after = new Map(documents);
  for (const { path, patch } of patches) after.set(path, applyPatch(documents.get(path), patch).document);
  return after;
};

const edited: number[] = [];
const shown: number[] = [];
const checked: number[] = [];
for (let round = 0; round < ROUNDS; round++) {
  let after = documents as ReadonlyMap<string, unknown>;
  edited.push(
    timed(() => {
      const patches = patchesBetween(documents, edit(system));
      after = applied(patches);
      for (const { path, patch } of patchesBetween(after, documents)) applyPatch(after.get(path), patch);
    }),
  );
  shown.push(timed(() => compileSystem(after)));
  checked.push(timed(() => dryRun(system, edit)));
}
const [first] = patchesBetween(documents, edit(system));
const operations = patchesBetween(documents, edit(system)).reduce((sum, { patch }) => sum + patch.length, 0);
process.stdout.write(`${operations} operations in ${DERIVED + 1} documents (${first!.path} …)\n`);
process.stdout.write(`edit, patches and the way back: ${median(edited).toFixed(1)} ms (aim ${LIMIT_MS})\n`);
process.stdout.write(
  `compiled: ${median(shown).toFixed(1)} ms; tried with all checks: ${median(checked).toFixed(1)} ms\n`,
);
if (median(edited) > LIMIT_MS) process.exitCode = 1;
