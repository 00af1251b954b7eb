import { randomly } from '../test/runs';
import fc from 'fast-check';
import { meaningProblems } from '../checks/meaning-problems';
import type { ComponentDocument, RuleDocument } from '../documents/component-document';
import { everyCombination, settledPlain, speakingRules } from '../test/naive';
import { randomComponent } from '../test/random-component';
import { demoSystem } from '../test/demo';
import { compileComponent } from '../components/compile-component';
import { settingPatch } from '../edits/edit-rules';
import { ledger } from './ledger';
import { resolve } from './resolve';
import { compileSystem } from '../components/system';
import { applyPatch } from '../patch/patch';
import type { TokenSet } from '../tokens/token-set';
import { parseCalc, CalcSyntaxError } from '../css/calc';
import { evaluate } from '../css/units';

const NO_TOKENS: TokenSet = { unresolved: new Set<string>(), byKey: new Map(), problems: [] };
const around = { tokens: NO_TOKENS, rootFontSize: 16 };

const withRules = (rules: RuleDocument[]): ComponentDocument => ({
  format: 'periwinkle-component/1',
  id: 'x',
  anatomy: {
    part: 'root',
    kind: 'stack',
    children: [{ part: 'frame', kind: 'row', children: [{ part: 'inner', kind: 'control' }] }],
  },
  axes: [{ id: 'pointer', kind: 'state' }],
  rules,
});
const set = (frame: Record<string, string>, inner: Record<string, string> = {}): RuleDocument => ({
  id: 'a',
  when: {},
  set: { frame, inner },
});
const value = (document: ComponentDocument, part: string, property: string): string =>
  resolve(compileComponent(document), {}, around).parts[part]![property]!.value;
const problemsOf = (document: ComponentDocument) =>
  meaningProblems(compileSystem(new Map([['components/x.component.json', document]])));

describe('resolution against the plain walk', () => {
  test('combination, trail and last word agree in random components', () => {
    fc.assert(
      fc.property(randomComponent, document => {
        const component = compileComponent(document);
        if (component.problems.length > 0) return;
        for (const raw of everyCombination(document).slice(0, 200)) {
          const settled = settledPlain(document, raw)!;
          const { combination, parts } = resolve(component, raw, around);
          expect(combination).toEqual(settled);
          const rules = speakingRules(document, settled);
          for (const [part, outcomes] of Object.entries(parts)) {
            for (const [property, outcome] of Object.entries(outcomes)) {
              const names = property === 'border-top-width' ? [property, 'border-width'] : [property];
              const trail = rules.flatMap(rule =>
                Object.entries(rule.set[part] ?? {})
                  .filter(([name]) => names.includes(name))
                  .map(([, text]) => ({ rule: rule.id, text })),
              );
              expect(outcome.trail).toEqual(trail);
              expect(outcome.rule).toBe(trail.at(-1)!.rule);
            }
          }
        }
      }),
      randomly('resolution'),
    );
  });
});

describe('values', () => {
  test('colours, lengths and times come in one form', () => {
    const document = withRules([
      set({
        'border-color': 'RED',
        height: '1.5rem',
        'border-width': '0',
        'transition-duration': '0.15s',
        cursor: 'pointer',
        width: '50%',
        'outline-offset': '-2.50px',
      }),
    ]);
    expect(problemsOf(document)).toEqual([]);
    expect(
      [
        'border-color',
        'height',
        'border-width',
        'transition-duration',
        'cursor',
        'width',
        'outline-offset',
      ].map(name => value(document, 'frame', name)),
    ).toEqual(['#ff0000', '24px', '0px', '150ms', 'pointer', '50%', '-2.5px']);
  });

  test('inner measures follow from outer ones, and negative ones are clamped', () => {
    const document = withRules([
      set(
        { height: '34px', 'border-width': '1px', 'border-radius': '0.5px' },
        {
          height: 'calc(@frame.height - 2 * @frame.border-width)',
          'border-radius': 'calc(@frame.border-radius - @frame.border-width)',
          'outline-offset': 'calc(@inner.height * -1)',
        },
      ),
    ]);
    expect(problemsOf(document)).toEqual([]);
    expect(value(document, 'inner', 'height')).toBe('32px');
    expect(value(document, 'inner', 'border-radius')).toBe('0px');
    expect(value(document, 'inner', 'outline-offset')).toBe('-32px');
  });

  test('a side can be said apart from all four, and the later word counts for it', () => {
    const document = withRules([
      { id: 'a', when: {}, set: { frame: { 'border-width': '2px', 'border-bottom-width': '5px' } } },
      { id: 'b', when: { pointer: 'over' }, set: { frame: { 'border-width': '3px' } } },
    ]);
    const component = compileComponent(document);
    expect(value(document, 'frame', 'border-bottom-width')).toBe('5px');
    expect(
      resolve(component, { pointer: 'down' }, around).parts['frame']!['border-bottom-width'],
    ).toMatchObject({
      value: '3px',
      rule: 'b',
      trail: [
        { rule: 'a', text: '2px' },
        { rule: 'a', text: '5px' },
        { rule: 'b', text: '3px' },
      ],
    });
  });

  test('a percentage keeps its calculation', () => {
    expect(
      value(
        withRules([set({ width: 'calc(100% - 2 * @frame.border-width)', 'border-width': '3px' })]),
        'frame',
        'width',
      ),
    ).toBe('calc(100% - (2 * 3px))');
  });
});

describe('calculations', () => {
  const amount = (text: string): number | null =>
    evaluate(parseCalc(text), 16, () => {
      throw new Error('no leaves here');
    }).amount;

  test('brackets, precedence, functions and nesting', () => {
    expect(amount('calc(2px + 3px * 4)')).toBe(14);
    expect(amount('calc((2px + 3px) * 4)')).toBe(20);
    expect(amount('calc(1rem / 2 - -3px)')).toBe(11);
    expect(amount('clamp(1px, 9px, 4px)')).toBe(4);
    expect(amount('calc(max(1px, calc(2px * 3)) + min(5px, 4px))')).toBe(10);
    expect(amount('calc(1px / 0)')).toBeNull();
  });

  test('agree with arithmetic', () => {
    const number = fc.integer({ min: -50, max: 50 });
    fc.assert(
      fc.property(number, number, number, (a, b, c) => {
        expect(amount(`calc(${a}px + ${b}px * ${c})`)).toBe(a + b * c);
        expect(amount(`calc((${a}px - ${b}px) * ${c})`)).toBe((a - b) * c);
      }),
    );
  });

  test.each([
    'calc(1px+2px)',
    'calc(1px + )',
    'calc((1px)',
    'calc(1px 2px)',
    'calc()',
    'calc(1px - - 2px)',
    `calc(${'('.repeat(50)}1px${')'.repeat(50)})`,
  ])('%s cannot be read', text => {
    expect(() => parseCalc(text)).toThrow(CalcSyntaxError);
  });
});

describe('what is wrong with a rule', () => {
  const codes = (frame: Record<string, string>): string[] =>
    problemsOf(withRules([set(frame)])).map(problem =>
      `${problem.pointer} ${problem.code} ${problem.suggestion ?? ''}`.trim(),
    );

  test.each<[Record<string, string>, string]>([
    [{ 'border-colour': 'red' }, '/rules/0/set/frame/border-colour unknown-property border-color'],
    [{ heigth: '2px' }, '/rules/0/set/frame/heigth unknown-property height'],
    [{ 'border-style': 'dasht' }, '/rules/0/set/frame/border-style wrong-value dashed'],
    [{ height: '12' }, '/rules/0/set/frame/height wrong-value'],
    [{ height: '12px; color: red' }, '/rules/0/set/frame/height wrong-value'],
    [{ height: '{size.x' }, '/rules/0/set/frame/height wrong-value'],
    [{ height: 'calc(1px + 20ms)' }, '/rules/0/set/frame/height wrong-unit'],
    [{ height: 'calc(2 * 3)' }, '/rules/0/set/frame/height wrong-unit'],
    [{ height: 'calc(@fram.width)' }, '/rules/0/set/frame/height unknown-part @frame.width'],
    [{ height: 'calc(@frame.widht)' }, '/rules/0/set/frame/height unknown-property @frame.width'],
    [{ cursor: 'calc(1px)' }, '/rules/0/set/frame/cursor wrong-value'],
    [{ present: 'yes' }, '/rules/0/set/frame/present wrong-value'],
    [
      { height: 'calc(@frame.width)', width: 'calc(@frame.height * 2)' },
      '/rules/0/set/frame/height reference-cycle',
    ],
  ])('%j', (frame, expected) => expect(codes(frame)).toEqual([expected]));

  test('references that never hold at the same time are no circle', () => {
    const document = withRules([
      { id: 'a', when: { pointer: ['away'] }, set: { frame: { height: 'calc(@frame.width)' } } },
      { id: 'b', when: { pointer: 'over' }, set: { frame: { width: 'calc(@frame.height)' } } },
    ]);
    expect(problemsOf(document)).toEqual([]);
  });
});

describe('the ledger', () => {
  const system = demoSystem();
  const component = system.components[0]!;
  const here = { tokens: system.tokens.usual(), rootFontSize: 16 };
  const over = component.rules.find(rule => rule.id === 'over')!;

  test('columns are the rules that speak, the scope among them; what is covered is marked', () => {
    const made = ledger(component, [{ pointer: 'over' }], over.region, here);
    expect(made.columns.map(column => column.words)).toEqual(['always', 'empty', 'pointed at']);
    expect(made.columns.map(column => column.isScope)).toEqual([false, false, true]);
    const row = made.rows.find(each => each.part === 'frame' && each.property === 'border-color')!;
    expect(row.entries).toEqual([
      { text: '{color.line.rest}', covered: true, departs: false },
      null,
      { text: '{color.line.over}', covered: false, departs: false },
    ]);
    expect(row.outcomes).toEqual([expect.objectContaining({ token: 'color.line.over' })]);
  });

  test('an outcome that differs within the selection lists its values', () => {
    const made = ledger(component, [{ size: 'small' }, { size: 'large' }, {}], null, here);
    const heights = made.rows.find(each => each.part === 'frame' && each.property === 'height')!.outcomes;
    expect(heights.map(outcome => outcome.value).sort()).toEqual(['28px', '34px', '40px']);
  });

  test('writing makes, extends, changes and takes out', () => {
    const write = (
      target: Parameters<typeof settingPatch>[1],
      property: string,
      text: string | null,
    ): ComponentDocument =>
      applyPatch(component.document, settingPatch(component, target, 'frame', property, text)).document;
    const region = component.space.full.map((mask, axis) =>
      component.space.axes[axis]!.id === 'size' ? 4 : component.space.axes[axis]!.id === 'pointer' ? 6 : mask,
    );
    expect(write({ region }, 'opacity', '0.5').rules!.at(-1)).toEqual({
      id: 'large-over',
      when: { size: 'large', pointer: 'over' },
      set: { frame: { opacity: '0.5' } },
    });
    expect(write({ rule: 'over' }, 'opacity', '0.5').rules![over.index]!.set['frame']).toMatchObject({
      opacity: '0.5',
      'border-color': '{color.line.over}',
    });
    expect(write({ rule: 'over' }, 'border-color', null).rules![over.index]!.set['frame']).toEqual({
      'background-color': '{color.surface.over}',
    });
    expect(settingPatch(component, { rule: 'over' }, 'frame', 'border-color', '{color.line.over}')).toEqual(
      [],
    );
    expect(settingPatch(component, { rule: 'gone' }, 'frame', 'opacity', '1')).toEqual([]);
  });
});
