/**
 * The engine on generated components: how the answers depend on the number of combinations, what they save against a walk,
 * and how soon a system is answered again after an edit.
 */
import { checkSystem } from '@periwinkle/core/checks/check-system';
import type { ComponentDocument } from '@periwinkle/core/documents/component-document';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { contestedWhere, contests } from '@periwinkle/core/cascade/questions/contests';
import { deadRules } from '@periwinkle/core/cascade/questions/dead-rules';
import { tokenReach } from '@periwinkle/core/cascade/questions/token-reach';
import type { Component } from '@periwinkle/core/components/component';
import { compileComponent } from '@periwinkle/core/components/compile-component';
import { compileSystem, type System } from '@periwinkle/core/components/system';
import { everyCombination, holdsIn, isAllowed } from '@periwinkle/core/test/naive';
import { generatedComponent, generatedSystem, median, timed } from './support/generated';

const ROUNDS = 15;
const say = (text: string): void => void process.stdout.write(`${text}\n`);

let times = 0;

/** Everything anew each time: documents are copied and have an axis of another title, so that nothing is remembered. */
function answer(document: ComponentDocument): Component {
  const [first, ...others] = structuredClone(document.axes!);
  const fresh = { ...structuredClone(document), axes: [{ ...first!, title: `Time ${++times}` }, ...others] };
  const { system, problems } = checkSystem(generatedSystem([fresh]));
  const error = problems.find(problem => problem.severity === 'error');
  if (error) throw new Error(`A generated component is wrong: ${error.message}`);
  const component = system.components[0]!;
  component.space.count();
  contests(component);
  deadRules(component);
  return component;
}

/** All contested regions as few conditions. */
function putInWords(component: Component): void {
  for (const contest of contests(component)) component.space.readable(contestedWhere(component, contest));
}

const SHAPES: readonly (readonly [words: string, axes: readonly number[]])[] = [
  ['10^4, 4 axes of 10', [10, 10, 10, 10]],
  ['10^4, 7 axes of 3 to 5', [3, 3, 5, 3, 4, 4, 5]],
  ['10^12, 12 axes of 10', Array.from({ length: 12 }, () => 10)],
  ['10^12, 20 axes of 4', Array.from({ length: 20 }, () => 4)],
];

say(`Count, contests, dead rules and check; 200 rules, 4 limits; median of ${ROUNDS}`);
const documents = SHAPES.map(([words, axes], index) => ({
  words,
  document: generatedComponent({ id: 'generated', axes, rules: 200, limits: 4 }, 11 + index),
  times: [] as number[],
  inWords: [] as number[],
}));
for (let round = -2; round < ROUNDS; round++) {
  for (const each of documents) {
    let component: Component | undefined;
    const time = timed(() => (component = answer(each.document)));
    const inWords = timed(() => putInWords(component!));
    if (round < 0) continue;
    each.times.push(time);
    each.inWords.push(inWords);
  }
}
const small = documents.slice(0, 2).map(each => median(each.times));
for (const { words, times, inWords, document } of documents) {
  const component = compileComponent(structuredClone(document));
  say(
    `  ${words}: ${small.map(each => (median(times) / each).toFixed(2)).join(' and ')} times the two at 10^4 (aim 2); ${component.space.count()} combinations, ` +
      `${contests(component).length} contests, ${median(times).toFixed(0)} ms; their regions in words ${median(inWords).toFixed(0)} ms more`,
  );
}

{
  // The walk counts and finds the contests of one property only; the engine answers all of it.
  const document = generatedComponent(
    { id: 'generated', axes: [10, 10, 10, 10, 10], rules: 30, limits: 3 },
    5,
  );
  const walk = timed(() => {
    const allowed = everyCombination(document).filter(each => isAllowed(document, each));
    const rules = document.rules!.filter(rule => rule.set['frame']?.['color']);
    const regions = rules.map(rule => new Set(allowed.filter(each => holdsIn(rule.when, each))));
    regions.forEach((a, i) => regions.slice(i + 1).forEach(b => [...a].filter(each => b.has(each))));
  });
  const engine = median(Array.from({ length: 9 }, () => timed(() => answer(document))));
  say(`A plain walk at 10^5 takes ${(walk / engine).toFixed(0)} times as long as the engine`);
}

{
  const axes = [3, 3, 3, 5, 3, 4, 2, 2, 3];
  const components = Array.from({ length: 14 }, (_, index) =>
    generatedComponent({ id: `field-${index}`, axes, rules: 100, limits: 4 }, 100 + index),
  );
  const TOKENS = 'tokens/all.tokens.json';
  let documents: ReadonlyMap<string, unknown> = generatedSystem(components);
  let system: System = compileSystem(documents);
  const ask = (key: string): void => {
    for (const component of system.components) {
      component.space.count();
      contests(component);
    }
    tokenReach(system, key);
  };
  ask('raw.color.c0');
  const edits = (
    patch: (index: number) => { file: string; path: string; value: unknown; key: string },
  ): number =>
    median(
      Array.from({ length: 100 }, (_, index) => {
        const { file, path, value, key } = patch(index);
        return timed(() => {
          const { document } = applyPatch(documents.get(file), [{ op: 'replace', path, value }]);
          documents = new Map(documents).set(file, document);
          system = compileSystem(documents);
          ask(key);
        });
      }),
    );
  const frame = 16;
  const token = edits(index => ({
    file: TOKENS,
    path: `/raw/color/c${index}/$value`,
    value: { colorSpace: 'srgb', components: [index / 100, 0, 0] },
    key: `raw.color.c${index}`,
  }));
  const rule = edits(index => ({
    file: `components/field-${index % 14}.component.json`,
    path: `/rules/${1 + (index % 90)}/when`,
    value: { x0: 'v1', [`x${1 + (index % 8)}`]: 'v0' },
    key: 'raw.color.c1',
  }));
  say(
    `14 components of 100 rules answered again (counts, contests, touched), median of 100 edits:\n` +
      `  one token: ${(token / frame).toFixed(2)} frames of ${frame} ms (aim 1); one condition: ${(rule / frame).toFixed(2)} frames`,
  );
}
