import { freshSeed, runsOf } from '../test/runs';
import fc from 'fast-check';
import type { AxisDocument, ComponentDocument, RuleDocument } from '../documents/component-document';
import { compileComponent } from '../components/compile-component';
import { everyCombination, isAllowed, speakingRules } from '../test/naive';
import { conditionOver, randomAxes, settlingLimits } from '../test/random-component';
import { cycleProblems } from './check-cycles';

const SIZES = ['height', 'width', 'min-height', 'border-radius', 'outline-offset', 'padding-block'];

const componentWith = (rules: RuleDocument[], rest: Partial<ComponentDocument> = {}): ComponentDocument => ({
  format: 'periwinkle-component/1',
  id: 'x',
  anatomy: {
    part: 'root',
    kind: 'stack',
    children: [
      { part: 'label', kind: 'label', content: 'label' },
      { part: 'frame', kind: 'row', children: [{ part: 'control', kind: 'control' }] },
      { part: 'message', kind: 'text', content: 'message' },
    ],
  },
  axes: [],
  rules,
  ...rest,
});

const sum = (names: readonly string[]): string => `calc(${names.map(name => `@${name}`).join(' + ')})`;
const rule = (id: string, name: string, value: string, when: RuleDocument['when'] = {}): RuleDocument => {
  const [part, property] = name.split('.') as [string, string];
  return { id, when, set: { [part]: { [property]: value } } };
};

/** The circles told, as lists of slots without the last, which is the first again. */
const circles = (document: ComponentDocument): string[][] =>
  cycleProblems(compileComponent(document)).map(({ message }) =>
    [...message.matchAll(/@([\w-]+\.[\w-]+)/g)].map(match => match[1]!).slice(0, -1),
  );
const steps = (circle: readonly string[]): string[] =>
  circle.map((slot, index) => `${slot} → ${circle[(index + 1) % circle.length]!}`);

/** By combination: what the last word on each property refers to. */
function referencesPlain(document: ComponentDocument): Map<string, string[]>[] {
  return everyCombination(document)
    .filter(combination => isAllowed(document, combination))
    .map(combination => {
      const last = new Map<string, string>();
      for (const { set } of speakingRules(document, combination))
        for (const [part, own] of Object.entries(set))
          for (const [property, text] of Object.entries(own)) last.set(`${part}.${property}`, text);
      return new Map(
        [...last].map(([slot, text]) => [slot, [...text.matchAll(/@([\w.-]+)/g)].map(match => match[1]!)]),
      );
    });
}

/** Every reference that leads back to where it stands, in some combination. */
function circlingPlain(document: ComponentDocument): Set<string> {
  const circling = new Set<string>();
  for (const references of referencesPlain(document)) {
    const leads = (from: string, to: string, seen = new Set<string>()): boolean =>
      from === to ||
      (!seen.has(from) && seen.add(from) && (references.get(from) ?? []).some(next => leads(next, to, seen)));
    for (const [from, all] of references)
      for (const to of all) if (leads(to, from)) circling.add(`${from} → ${to}`);
  }
  return circling;
}

const randomReferences: fc.Arbitrary<ComponentDocument> = randomAxes.chain((axes: AxisDocument[]) => {
  const slot = fc.constantFrom(...SIZES.slice(0, 4).map(property => `frame.${property}`));
  const one = fc.record({
    when: conditionOver(axes),
    name: slot,
    value: fc.oneof(
      fc.constant('4px'),
      fc.uniqueArray(slot, { minLength: 1, maxLength: 2 }).map(names => sum(names)),
    ),
  });
  return fc
    .record({ limits: settlingLimits(axes), rules: fc.array(one, { maxLength: 8 }) })
    .map(({ limits, rules }) =>
      componentWith(
        rules.map(({ when, name, value }, index) => rule(`r${index}`, name, value, when)),
        { axes, limits },
      ),
    );
});

test('exactly the references that lead back to themselves in some combination are told, in circles of them', () => {
  const seed = freshSeed('circles');
  fc.assert(
    fc.property(randomReferences, document => {
      // Limits that work against each other are reported, and left out.
      fc.pre(compileComponent(document).problems.length === 0);
      const told = circles(document);
      expect(new Set(told.flatMap(steps))).toEqual(circlingPlain(document));
      for (const circle of told) expect(new Set(circle).size).toBe(circle.length);
      // Each stands together in one combination.
      const here = referencesPlain(document).map(
        references => new Set([...references].flatMap(([from, all]) => all.map(to => `${from} → ${to}`))),
      );
      for (const circle of told)
        expect(here.some(each => steps(circle).every(step => each.has(step)))).toBe(true);
    }),
    { numRuns: runsOf('circles'), seed },
  );
});

test('where everything refers to everything the pairs are told, not every way around', () => {
  const slots = ['root', 'label', 'frame', 'control', 'message'].flatMap(part =>
    SIZES.map(property => `${part}.${property}`),
  );
  const rules = slots.map((name, index) => rule(`r${index}`, name, sum(slots.filter(each => each !== name))));
  const told = circles(componentWith(rules));
  expect(told).toHaveLength((slots.length * (slots.length - 1)) / 2);
  expect(told.every(circle => circle.length === 2)).toBe(true);
});

test('one long circle is one problem that names all of it', () => {
  const slots = ['root', 'label', 'frame', 'control', 'message'].flatMap(part =>
    SIZES.map(property => `${part}.${property}`),
  );
  const rules = slots.map((name, index) =>
    rule(`r${index}`, name, sum([slots[(index + 1) % slots.length]!])),
  );
  expect(circles(componentWith(rules))).toEqual([slots]);
});

test('each reference of a circle is told at its own place, though two rules make the same circle', () => {
  const axes: AxisDocument[] = [{ id: 'focus', kind: 'state' }];
  const rules = [
    rule('a', 'frame.height', 'calc(@frame.width)'),
    rule('b', 'frame.height', 'calc(@frame.width + 1px)', { focus: 'in' }),
    rule('c', 'frame.width', 'calc(@frame.height)'),
  ];
  const problems = cycleProblems(compileComponent(componentWith(rules, { axes })));
  expect(problems.map(({ pointer }) => pointer)).toEqual([
    '/rules/0/set/frame/height',
    '/rules/1/set/frame/height',
  ]);
});
