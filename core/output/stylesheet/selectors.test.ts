import { randomly } from '../../test/runs';
import fc from 'fast-check';
import type { ComponentDocument } from '../../documents/component-document';
import { compileComponent } from '../../components/compile-component';
import { compileSystem } from '../../components/system';
import type { Axis } from '../../space/axis';
import { everyCombination, holdsIn, settledPlain, type Plain } from '../../test/naive';
import { detectionSelectors } from '../../test/detections';
import { randomComponent } from '../../test/random-component';
import { compound, not, all, any, atom, selectorList, TRUE, FALSE, type Formula } from './formula';
import { readableCover } from '../../space/readable-cover';
import { namesOf, type OutputNames } from '../../render/names';
import { boxConditions } from './box-conditions';
import { HELD, SHIPPED } from './selector-scheme';

/** Whether a formula holds, given which of its atoms do. */
function holds(formula: Formula, test: (selector: string) => boolean): boolean {
  switch (formula.kind) {
    case 'true':
      return true;
    case 'false':
      return false;
    case 'atom':
      return test(formula.selector);
    case 'not':
      return !holds(formula.inner, test);
    case 'all':
      return formula.parts.every(part => holds(part, test));
    case 'any':
      return formula.parts.some(part => holds(part, test));
  }
}

/** What a browser would find for an atom on a field in a raw combination; each rung of a ladder implies those below. */
function browserFinds(selector: string, raw: Plain, axes: readonly Axis[]): boolean {
  const option = /^\[data-([\w-]+)="([\w-]+)"\]$/.exec(selector);
  for (const axis of axes) {
    for (const [index, value] of axis.values.entries()) {
      const own =
        detectionSelectors(axis, value.id, 'p-specimen-control').includes(selector) ||
        (option?.[1] === axis.id && option[2] === value.id);
      if (!own) continue;
      const here = axis.values.findIndex(each => each.id === raw[axis.id]);
      return axis.ladder ? here >= index : here === index;
    }
  }
  throw new Error(`unknown test ${selector}`);
}

const namesIn = (document: ComponentDocument): OutputNames =>
  namesOf({ ...compileSystem(new Map([['components/specimen.component.json', document]])), prefix: 'p' });

const inAll = (document: ComponentDocument, check: (raw: Plain, rule: number) => void): void => {
  for (const raw of everyCombination(document))
    (document.rules ?? []).forEach((_, index) => check(raw, index));
};

describe('selectors stand for regions', () => {
  test('shipped: a rule matches exactly the raw combinations that the limits take into its region', () => {
    fc.assert(
      fc.property(randomComponent, document => {
        const component = compileComponent(document);
        if (component.problems.length > 0) return;
        const formulas = component.rules.map(rule => {
          const { space } = component;
          const boxes = readableCover(space.extents, space.reachedFrom(rule.region));
          return boxConditions(
            SHIPPED,
            component,
            namesIn(document).component('specimen'),
          )(boxes.map(box => ({ must: box, may: box })))[0]!.root;
        });
        inAll(document, (raw, index) => {
          const matches = holds(formulas[index]!, selector =>
            browserFinds(selector, raw, component.space.axes),
          );
          expect(matches).toBe(holdsIn(document.rules![index]!.when, settledPlain(document, raw)!));
        });
      }),
      randomly('formulas'),
    );
  });

  test('held: a rule matches exactly the allowed combinations in its region', () => {
    fc.assert(
      fc.property(randomComponent, document => {
        const component = compileComponent(document);
        if (component.problems.length > 0) return;
        const formulas = component.rules.map(
          rule =>
            boxConditions(
              HELD,
              component,
              namesIn(document).component('specimen'),
            )([{ must: rule.region, may: rule.region }])[0]!.root,
        );
        inAll(document, (raw, index) => {
          const settled = settledPlain(document, raw)!;
          const matches = holds(formulas[index]!, selector => {
            const [, axis, value] = /^\[data-([\w-]+)="([\w-]+)"\]$/.exec(selector)!;
            return settled[axis!] === value;
          });
          expect(matches).toBe(holdsIn(document.rules![index]!.when, settled));
        });
      }),
      randomly('formulas'),
    );
  });
});

describe('formulas as text', () => {
  const a = atom('[a]');
  const b = atom('[b]');

  test('simplify as they are built', () => {
    expect(all(TRUE, a)).toBe(a);
    expect(all(a, FALSE)).toBe(FALSE);
    expect(any(FALSE, a)).toBe(a);
    expect(any(a, TRUE)).toBe(TRUE);
    expect(not(not(a))).toBe(a);
    expect(not(TRUE)).toBe(FALSE);
    expect(all()).toBe(TRUE);
    expect(any()).toBe(FALSE);
  });

  test('negations share one :not(), alternatives become a list', () => {
    expect(compound(all(not(a), not(b)))).toBe(':not([a], [b])');
    expect(compound(all(b, not(a)))).toBe('[b]:not([a])');
    expect(compound(not(any(a, b)))).toBe(':not([a], [b])');
    expect(compound(all(a, any(b, not(a))))).toBe('[a]:is([b], :not([a]))');
    expect(selectorList(any(a, all(a, b)))).toEqual(['[a]', '[a][b]']);
  });

  test('a test that is a negation itself is not negated twice', () => {
    const filled = atom(':not(:has(.c:placeholder-shown))');
    expect(compound(not(filled))).toBe(':has(.c:placeholder-shown)');
  });
});
