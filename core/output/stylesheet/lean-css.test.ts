import { freshSeed, runsOf } from '../../test/runs';
import fc from 'fast-check';
import { generate, parse } from 'css-tree';
import { compileSystem } from '../../components/system';
import type { Component } from '../../components/component';
import { leavesOf } from '../../css/property-registry';
import { everyCombination, holdsIn, settledPlain, type Plain } from '../../test/naive';
import { detectionSelectors } from '../../test/detections';
import { randomSystem } from '../../test/random-system';
import { matchesList, type OracleElement } from '../../test/selector-oracle';
import { componentStylesheet } from './component-css';
import { HELD, HOST, PART, SHIPPED, type SelectorScheme } from './selector-scheme';
import type { StyleBlock } from './stylesheet';

const normal = (selector: string): string => generate(parse(selector, { context: 'selector' }));

/** What a browser would find in a raw combination, by simple selector. */
function findings(component: Component, raw: Plain, scheme: SelectorScheme): Map<string, boolean> {
  const found = new Map<string, boolean>();
  for (const axis of component.space.axes) {
    const here = axis.indexOf.get(raw[axis.id]!)!;
    axis.values.forEach((value, index) => {
      const holds = axis.ladder ? here >= index : here === index;
      found.set(normal(`[data-${axis.id}="${value.id}"]`), holds);
      if (scheme === HOST || scheme === PART) return;
      for (const selector of detectionSelectors(axis, value.id, 'p-specimen-control'))
        found.set(normal(selector), holds);
    });
  }
  const { pointer = 'away', focus = 'out' } = raw;
  found.set(':hover', pointer !== 'away').set(':active', pointer === 'down');
  return found.set(':focus-within', focus !== 'out');
}

/** What the blocks declare on a part in the end, shorthands by their sides. */
function cascade(blocks: readonly { declarations: StyleBlock['declarations'] }[]): Record<string, string> {
  const result: Record<string, string> = {};
  for (const { declarations } of blocks) {
    for (const [name, value] of declarations) {
      for (const leaf of leavesOf(name)) result[leaf] = value;
    }
  }
  return result;
}

function elementOf(
  component: Component,
  part: string,
  found: Map<string, boolean>,
  scheme: SelectorScheme,
): OracleElement {
  const test = (simple: string): boolean => {
    const holds = found.get(simple);
    if (holds === undefined) throw new Error(`nobody knows ${simple}`);
    return holds;
  };
  const shadow = scheme === HOST || scheme === PART;
  const host = { classes: [], type: 'p-specimen', isHost: true, part: '', parent: null, test };
  const root = {
    classes: ['p-specimen'],
    type: 'div',
    isHost: false,
    part: '',
    parent: shadow ? host : null,
    test,
  };
  if (scheme === PART) return { ...host, part };
  if (part === component.anatomy.root.name) return root;
  return { ...root, classes: [`p-specimen-${part}`], parent: root };
}

describe('lean stylesheets say of every raw combination what the rules say of what it counts as', () => {
  const seed = freshSeed('lean stylesheets');
  test.each([SHIPPED, HOST, PART].map(scheme => [scheme.name, scheme] as const))(
    '%s',
    (_, scheme) => {
      fc.assert(
        fc.property(randomSystem, random => {
          const system = compileSystem(random.documents);
          const component = system.components[0]!;
          if (component.problems.some(problem => problem.severity === 'error')) return;
          const input = { system, component };
          const plain = componentStylesheet({ ...input, scheme: HELD }).blocks;
          const { blocks } = componentStylesheet({ ...input, scheme });
          const stated = blocks.filter(
            ({ key, within }) => !/^(reset|autofill)/.test(key) && within === undefined,
          );
          for (const raw of everyCombination(random.component)) {
            const settled = settledPlain(random.component, raw)!;
            const speaking = random.component.rules!.filter(rule => holdsIn(rule.when, settled));
            const found = findings(component, raw, scheme);
            for (const { name: part } of component.anatomy.parts) {
              const expected = cascade(
                speaking.flatMap(rule => plain.filter(block => block.key === `${rule.id}/${part}`)),
              );
              const element = elementOf(component, part, found, scheme);
              const matching = stated.filter(block => matchesList(block.selector, element));
              expect(cascade(matching)).toEqual(expected);
            }
          }
        }),
        { numRuns: runsOf('lean stylesheets'), seed },
      );
    },
    120_000,
  );
});
