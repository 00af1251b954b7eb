import { compileSystem, type System } from '../components/system';
import { smallSystem } from '../test/small-system';
import { componentCssText } from '../output/outputs';
import { namesOf } from './names';
import { tokenNameProblems } from '../output/tokens/token-names';
import { tokensStylesheet } from '../output/tokens/tokens-css';
import { stylesheetText } from '../output/stylesheet/stylesheet';
import { parse } from 'css-tree';

interface Part {
  part: string;
  kind: string;
  children?: Part[];
}

const component = (id: string, parts: readonly string[], axes: object[] = []): [string, unknown] => [
  `components/${id}.component.json`,
  {
    format: 'periwinkle-component/1',
    id,
    anatomy: {
      part: 'root',
      kind: 'stack',
      children: parts.map((part): Part => ({ part, kind: 'row' })),
    },
    axes,
    rules: [{ id: 'r', when: {}, set: { root: { opacity: '{n}' } } }],
  },
];

const systemOf = (documents: [string, unknown][], modifiers: Record<string, string[]> = {}): System =>
  smallSystem({
    documents,
    modifiers: Object.fromEntries(
      Object.entries(modifiers).map(([name, own]) => [
        name,
        Object.fromEntries(own.map((context, index) => [context, { n: { $type: 'number', $value: index } }])),
      ]),
    ),
  });

const everyClass = (system: System): string[] =>
  system.components.flatMap(({ id, anatomy }) =>
    anatomy.parts.map(part => namesOf(system).component(id).part(part.name)),
  );

describe('no two things have one name', () => {
  test('a part is not taken for a component, whichever comes first', () => {
    const documents = [component('field', ['message']), component('field-message', ['text'])];
    for (const order of [documents, [...documents].reverse()]) {
      const system = systemOf(order);
      const names = namesOf(system);
      expect(names.component('field-message').root).toBe('p-field-message');
      expect(names.component('field').part('message')).toBe('p-field-message-2');
      expect(new Set(everyClass(system)).size).toBe(4);
    }
  });

  test('parts and axes whose names differ in their writing only', () => {
    const system = systemOf([component('field', ['helperText', 'helper-text', 'helper_text'])]);
    expect(new Set(everyClass(system)).size).toBe(4);
    const names = namesOf(system).component('field');
    const published = ['helperText', 'helper-text'].map(part => names.published(part, 'height'));
    expect(new Set(published).size).toBe(2);
  });

  test('an axis called like a modifier does not switch its contexts', () => {
    const axis = { id: 'density', kind: 'option', values: [{ id: 'close' }, { id: 'roomy' }] };
    const system = systemOf([component('field', [], [axis])], { density: ['roomy', 'close'] });
    expect(namesOf(system).context('density')).toBe('data-density');
    expect(namesOf(system).component('field').axis('density')).toBe('data-field-density');
  });

  test('a modifier keeps away from what states set', () => {
    const system = systemOf([component('field', [])], { validity: ['day', 'night'] });
    expect(namesOf(system).context('validity')).not.toBe('data-validity');
  });

  test('contexts in other scripts stay apart', () => {
    const own = ['день', 'ночь', '夜', 'my night', 'my-night'];
    const system = systemOf([component('field', [])], { тема: own });
    const switches = own.map(context => namesOf(system).contextSwitch('тема', context));
    expect(new Set(switches).size).toBe(own.length);
  });

  test('a token and a member of another are told', () => {
    const px = { value: 1, unit: 'px' };
    const color = { colorSpace: 'srgb', components: [0, 0, 0] };
    const system = compileSystem(
      new Map([
        [
          'tokens/a.tokens.json',
          {
            line: { $type: 'border', $value: { color, width: px, style: 'solid' } },
            'line--width': { $type: 'dimension', $value: px },
          },
        ],
      ]),
    );
    expect(tokenNameProblems(system)).toEqual([
      expect.objectContaining({ code: 'name-collision', pointer: '/line--width' }),
    ]);
  });
});

test('whatever a modifier and its contexts are called, the stylesheet has the same blocks', () => {
  const names = ['my theme', 'a"] { } body { color: red } [x="', 'x] {} *', '夜 \u0000 \n', '1', '--', 'é'];
  for (const name of names) {
    const system = systemOf([component('field', [])], { [name]: ['plain', `${name} also`] });
    const text = stylesheetText(tokensStylesheet(system)) + componentCssText(system, system.components[0]!);
    const faults: string[] = [];
    parse(text, { onParseError: error => faults.push(error.message) });
    expect(faults).toEqual([]);
    expect(text).not.toMatch(/^\s*body/m);
    expect(text.match(/^\[data-[^{]*\{/gm)).toHaveLength(2);
  }
});
