/**
 * A component with ten others nested in it: how counts, contests and dead rules depend on the number of its combinations, and what
 * an edit of the nested one costs.
 */
import { checkSystem } from '@periwinkle/core/checks/check-system';
import { compileSystem, componentNamed, type System } from '@periwinkle/core/components/system';
import type { ComponentDocument, RuleDocument } from '@periwinkle/core/documents/component-document';
import type { PartDocument } from '@periwinkle/core/documents/part-document';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { contests } from '@periwinkle/core/cascade/questions/contests';
import { deadRules } from '@periwinkle/core/cascade/questions/dead-rules';
import { generatedComponent, generatedSystem, median, timed } from './support/generated';

const NESTED = 10;
const ROUNDS = 15;
const EDITS = 50;
const FRAME_MS = 16;
const PIECE = 'components/piece.component.json';
const piece = generatedComponent({ id: 'piece', axes: [3, 3, 4, 2], rules: 30, limits: 2 }, 77);

/** Half of the nested axes follow the parent's, through a map and through cases; the others are free. */
const use = (index: number): PartDocument => ({
  part: `piece${index}`,
  kind: 'use',
  component: 'piece',
  with: {
    x0: { axis: 'x0', map: { v1: 'v1', v2: 'v2', v3: 'v1' } },
    x2: [
      { when: { [`x${index % 4}`]: ['v0', 'v3'] }, is: 'v1' },
      { when: { x1: 'v2', x3: 'v1' }, is: 'v3' },
    ],
  },
});

const ours = (index: number): RuleDocument => ({
  id: `ours${index}`,
  when: { [`x${index % 4}`]: 'v1' },
  ...(index % 3 === 0 ? { after: `piece${index}/r3` } : {}),
  set: { [`piece${index}/frame`]: { color: `{t.color.c${index}}`, opacity: '0.5' } },
});

function parent(axes: readonly number[]): ComponentDocument {
  const own = generatedComponent({ id: 'parent', axes, rules: 60, limits: 4 }, 21);
  const all = Array.from({ length: NESTED }, (_, index) => index);
  return {
    ...own,
    anatomy: { ...own.anatomy, children: [...(own.anatomy.children ?? []), ...all.map(use)] },
    rules: [...own.rules!, ...all.map(ours)],
  };
}

let times = 0;

/** Everything anew: an axis has another title, so nothing is remembered. */
function documentsOf(document: ComponentDocument): Map<string, unknown> {
  const fresh = (whole: ComponentDocument): ComponentDocument => {
    const [first, ...others] = structuredClone(whole.axes!);
    return { ...structuredClone(whole), axes: [{ ...first!, title: `Time ${++times}` }, ...others] };
  };
  return generatedSystem([fresh(document), fresh(piece)]);
}

function answered(system: System): number {
  const component = componentNamed(system, 'parent')!;
  return Number(component.space.count() % 1000n) + contests(component).length + deadRules(component).length;
}

const SHAPES = [
  { words: '10^4, 4 axes of 10', axes: [10, 10, 10, 10] },
  { words: '10^12, 12 axes of 10', axes: Array.from({ length: 12 }, () => 10) },
].map(shape => ({ ...shape, document: parent(shape.axes), times: [] as number[] }));

for (const { document } of SHAPES) {
  const errors = checkSystem(documentsOf(document)).problems.filter(({ severity }) => severity === 'error');
  if (errors.length > 0) throw new Error(JSON.stringify(errors.slice(0, 3)));
}
for (let round = -2; round < ROUNDS; round++) {
  for (const shape of SHAPES) {
    const documents = documentsOf(shape.document);
    const time = timed(() => answered(compileSystem(documents)));
    if (round >= 0) shape.times.push(time);
  }
}
const [small, large] = SHAPES.map(shape => median(shape.times)) as [number, number];
process.stdout.write(
  `A parent with ${NESTED} nested components, counted, contested and dead rules: ${SHAPES[1]!.words} ` +
    `${(large / small).toFixed(2)} times ${SHAPES[0]!.words} (aim 2; ${small.toFixed(0)} and ${large.toFixed(0)} ms, medians of ${ROUNDS})\n`,
);

let system = compileSystem(documentsOf(SHAPES[1]!.document));
answered(system);
const edit = (index: number): number =>
  timed(() => {
    const value = { 'background-color': `{t.color.c${7 + (index % 2)}}` };
    const { document } = applyPatch(system.documents.get(PIECE), [
      { op: 'add', path: '/rules/3/set/frame', value },
    ]);
    system = compileSystem(new Map(system.documents).set(PIECE, document));
    answered(system);
  });
edit(0);
const edits = median(Array.from({ length: EDITS }, (_, index) => edit(index + 1)));
process.stdout.write(
  `  after an edit of a rule of the nested one ${(edits / FRAME_MS).toFixed(2)} frames of ${FRAME_MS} ms (median of ${EDITS})\n`,
);
