/**
 * What an edit of a base costs that others are derived from: everything answered again of all of them, counts, contests and what
 * the rule touches.
 */
import { checkSystem } from '@periwinkle/core/checks/check-system';
import { compileSystem, type System } from '@periwinkle/core/components/system';
import type { DerivedDocument } from '@periwinkle/core/documents/component-document';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { contests } from '@periwinkle/core/cascade/questions/contests';
import { touchedByRule } from '@periwinkle/core/cascade/questions/touched-regions';
import { generatedComponent, generatedSystem, median, timed } from './support/generated';

const FRAME_MS = 16;
const DERIVED = 14;
const EDITS = 100;
const AXES = [3, 3, 3, 5, 3, 4, 2, 2, 3];
const BASE = 'components/field.component.json';

const base = generatedComponent({ id: 'field', axes: AXES, rules: 100, limits: 4 }, 300);
/** Rules of the base that hold somewhere whatever is left of the axis that is narrowed. */
const kept = base.rules!.filter(({ when }) => when['x3'] === undefined).map(({ id }) => id);

/** Each narrows an axis, lays something over some rules, leaves one out and adds two. */
const derived = (index: number): DerivedDocument => ({
  format: 'periwinkle-component/1',
  id: `derived-${index}`,
  extends: index % 5 === 4 ? `derived-${index - 1}` : 'field',
  axes: [{ id: 'x3', values: [0, 1, 2, 3].slice(0, 2 + (index % 3)).map(value => ({ id: `v${value}` })) }],
  rules: [
    ...[1, 2, 3].map(step => ({
      id: kept[index + step * 12]!,
      set: { frame: { 'border-color': `{t.color.c${index + step}}` } },
    })),
    ...[0, 1].map(number => ({
      id: `own-${index}-${number}`,
      when: { [`x${number}`]: 'v1' },
      after: 'r0',
      set: { label: { color: `{t.color.c${index}}` } },
    })),
  ],
  without: { rules: [kept.at(-1 - index)!] },
});

const documents = generatedSystem([base, ...Array.from({ length: DERIVED }, (_, index) => derived(index))]);

function answered(system: System): number {
  let sum = 0;
  for (const component of system.components) {
    sum += Number(component.space.count() % 1000n) + contests(component).length;
    const rule = component.rules.find(each => each.id === 'r3');
    if (rule) sum += touchedByRule(component, rule).where;
  }
  return sum;
}

const { problems } = checkSystem(documents);
const errors = problems.filter(({ severity }) => severity === 'error');
if (errors.length > 0) throw new Error(JSON.stringify(errors.slice(0, 3)));

let system = compileSystem(documents);
const first = timed(() => answered(system));
const edit = (index: number): number =>
  timed(() => {
    const value = { 'background-color': `{t.color.c${7 + (index % 2)}}` };
    const { document } = applyPatch(system.documents.get(BASE), [
      { op: 'add', path: '/rules/3/set/frame', value },
    ]);
    system = compileSystem(new Map(system.documents).set(BASE, document));
    answered(system);
  });
const frames = (from: number): string =>
  (median(Array.from({ length: EDITS }, (_, index) => edit(from + index))) / FRAME_MS).toFixed(2);
edit(0);
// The program's text is compiled while it runs for the first time.
const cold = frames(1);
const warm = frames(EDITS + 1);
process.stdout.write(
  `A base of 100 rules and ${DERIVED} derived from it answered: at first ${first.toFixed(0)} ms; ` +
    `after an edit of the base ${cold} frames of ${FRAME_MS} ms (median of the first ${EDITS}), ` +
    `then ${warm} (median of the next ${EDITS}, aim 1)\n`,
);
