import { randomly } from '../test/runs';
import fc from 'fast-check';
import { QUOTAS } from '../json/quotas';
import { readJson } from '../json/read-json';
import { nearest } from '../text/suggestions';
import { valueAt } from '../json/json';
import { demoDocuments } from '../test/demo';
import { checkSystem } from './check-system';
import { contrast } from '../css/contrast';
import { entryProblem } from './check-entry';
import { demoSystem } from '../test/demo';

const demo = demoDocuments();
const FIELD = 'components/text-field.component.json';

function damaged(path: string, change: (document: Record<string, never>) => void): string[] {
  const document = structuredClone(demo.get(path)) as Record<string, never>;
  change(document);
  return checkSystem(new Map(demo).set(path, document)).problems.map(({ file, pointer, code, suggestion }) =>
    [file, pointer, code, suggestion].filter(Boolean).join(' '),
  );
}

describe('structure', () => {
  test('more than there may be is told with how much that is, and the rest checked all the same', () => {
    const rule = (index: number): object => ({ id: `r${index}`, when: {}, set: {} });
    const problems = damaged(FIELD, document => {
      const open = document as Record<string, unknown>;
      open['rules'] = Array.from({ length: QUOTAS.rules + 1 }, (_, index) => rule(index));
      open['sumary'] = 'x';
    });
    expect(problems).toContain(`${FIELD} /rules too-many`);
    expect(problems).toContain(`${FIELD} /sumary unknown-key summary`);
    const tokens = Object.fromEntries(
      Array.from({ length: QUOTAS.tokens + 1 }, (_, index) => [`t${index}`, { $value: 1, $type: 'number' }]),
    );
    expect(damaged('tokens/raw.tokens.json', document => Object.assign(document, tokens))).toEqual([
      'tokens/raw.tokens.json too-many-tokens',
    ]);
  });

  test('unknown keys, wrong types and missing keys are placed, all in one run', () => {
    const problems = damaged(FIELD, document => {
      const open = document as Record<string, unknown>;
      open['sumary'] = 'x';
      open['title'] = 7;
      delete open['id'];
      (open['rules'] as { when: unknown }[])[2]!.when = 'large';
    });
    expect(problems).toEqual(
      expect.arrayContaining([
        `${FIELD} /sumary unknown-key summary`,
        `${FIELD} /title wrong-type`,
        `${FIELD} missing-key`,
        `${FIELD} /rules/2/when wrong-type`,
      ]),
    );
  });

  test('a key with a slash has its place, and the rest of the document is still checked', () => {
    const problems = damaged(FIELD, document => {
      const open = document as unknown as Record<string, unknown> & {
        rules: { set: Record<string, unknown> }[];
      };
      open['a/b~c'] = 1;
      open.rules[0]!.set = { fram: {} };
    });
    expect(problems).toEqual(
      expect.arrayContaining([
        `${FIELD} /a~1b~0c unknown-key`,
        `${FIELD} /rules/0/set/fram unknown-part frame`,
      ]),
    );
  });

  test('colours of the page that are no tokens, or none of colour', () => {
    const problems = damaged('system.json', document =>
      Object.assign(document, { page: { surface: '{color.surface.pag}', ink: '{raw.space.1}' } }),
    );
    expect(problems).toEqual([
      'system.json /page/surface unknown-token {color.surface.page}',
      'system.json /page/ink wrong-type',
    ]);
  });

  test('a file that is no document, and a system without system.json', () => {
    expect(checkSystem(new Map([['notes.txt', 'x']])).problems.map(problem => problem.code)).toEqual([
      'unknown-file',
      'missing-file',
    ]);
  });
});

describe('meaning', () => {
  test('a sample that names an icon that is not there', () => {
    const problems = damaged(FIELD, document => {
      (document as unknown as { samples: { content: Record<string, string> }[] }).samples[0]!.content[
        'leadingIcon'
      ] = 'ancor';
    });
    expect(problems).toEqual([`${FIELD} /samples/0/content/leadingIcon unknown-icon`]);
  });

  test('plates that name axes, values and samples that are not there', () => {
    const problems = damaged(FIELD, document => {
      (document as unknown as { plates: object[] }).plates[0] = {
        id: 'p',
        across: ['situaton'],
        down: ['size'],
        hold: { size: 'huge' },
        sample: 'vesel',
      };
    });
    expect(problems).toEqual([
      `${FIELD} /plates/0/hold/size unknown-value`,
      `${FIELD} /plates/0/sample unknown-sample vessel`,
      `${FIELD} /plates/0/across/0 unknown-axis situation`,
    ]);
  });

  test('a broken token is reported where it stands, and not again at each of its users', () => {
    const problems = damaged('tokens/raw.tokens.json', document => {
      const raw = valueAt(document, ['raw', 'quaystone', '50']) as Record<string, unknown>;
      raw['$value'] = '{raw.quaystone.51}';
    });
    expect(problems).toHaveLength(1 + problems.filter(problem => problem.startsWith('components/')).length);
    expect(problems.find(problem => problem.startsWith('tokens/'))).toMatch(
      /^tokens\/raw\.tokens\.json \/raw\/quaystone\/50\/\$value missing-token \{raw\.quaystone\./,
    );
  });
});

describe('damaged systems', () => {
  /** One random wound in one random document. */
  const wound = fc.record({
    path: fc.constantFrom(...[...demo.keys()].filter(path => path.endsWith('.json'))),
    place: fc.nat(),
    kind: fc.constantFrom(
      'delete',
      'null',
      'number',
      'text',
      'list',
      'object',
      'huge',
      'deep',
      'cycle',
      'proto',
    ),
  });
  const everyPlace = (node: unknown, at: string[] = []): string[][] =>
    typeof node === 'object' && node !== null
      ? Object.entries(node).flatMap(([key, value]) => [[...at, key], ...everyPlace(value, [...at, key])])
      : [];
  const deep = (levels: number): unknown =>
    Array.from({ length: levels }).reduce<unknown>(inner => ({ children: [inner] }), {});
  const VALUES: Record<string, () => unknown> = {
    null: () => null,
    number: () => 42,
    text: () => 'boo',
    list: () => [1, 'a', null],
    object: () => ({ surprise: {} }),
    huge: () => 1e308,
    deep: () => deep(60),
    cycle: () => '{raw.space.1}',
    proto: () => JSON.parse('{"__proto__": {"polluted": true}, "constructor": "x"}') as unknown,
  };

  test('never crash, and what is reported has a place', () => {
    fc.assert(
      fc.property(wound, ({ path, place, kind }) => {
        const document = structuredClone(demo.get(path)) as Record<string, unknown>;
        const places = everyPlace(document);
        const at = places[place % places.length]!;
        const parent = valueAt(document, at.slice(0, -1)) as Record<string, unknown>;
        if (kind === 'delete') delete parent[at.at(-1)!];
        else parent[at.at(-1)!] = VALUES[kind]!();
        const { problems } = checkSystem(new Map(demo).set(path, document));
        for (const problem of problems) {
          expect(problem.file).not.toBe('');
          expect(problem.message.length).toBeGreaterThan(8);
          expect(problem.pointer === '' || problem.pointer.startsWith('/')).toBe(true);
        }
        expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
      }),
      randomly('check calls'),
    );
  }, 120_000);
});

describe('reading JSON', () => {
  test.each([
    ['', /file is empty/],
    ['{"a": }', /not JSON/],
    ['{"__proto__": 1}', /cannot be used/],
    ['{"a": {"constructor": 1}}', /cannot be used/],
    ['['.repeat(100) + ']'.repeat(100), /levels deep/],
    ['['.repeat(200_000), /not JSON|levels deep/],
  ])('%.20s is refused with a reason', (text, reason) => {
    const read = readJson(text);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.problem.message).toMatch(reason);
  });
});

describe('suggestions', () => {
  test('the near one, British spellings included; nothing when none is near', () => {
    expect(nearest('border-colour', ['border-color', 'border-width'])).toBe('border-color');
    expect(nearest('Larg', ['small', 'large'])).toBe('large');
    expect(nearest('zzz', ['small', 'large'])).toBeUndefined();
  });
});

describe('a value about to be set', () => {
  const system = demoSystem();
  const check = (property: string, text: string) =>
    entryProblem(system.components[0]!, system.tokens.usual(), 'frame', property, text);
  test('is refused with the likely one, or accepted', () => {
    expect(check('border-color', '{color.line.over}')).toBeNull();
    expect(check('border-color', '{color.line.ovre}')).toMatchObject({
      code: 'unknown-token',
      suggestion: '{color.line.over}',
    });
    expect(check('border-color', '{raw.line.hair}')).toMatchObject({ code: 'wrong-type' });
    expect(check('border-colr', 'red')).toMatchObject({
      code: 'unknown-property',
      suggestion: 'border-color',
    });
  });
});

test('contrast follows WCAG, also for what lets the surface through', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21);
  expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
  expect(contrast('#00000000', '#ffffff')).toBeCloseTo(1);
  expect(contrast('none', '#ffffff')).toBeNull();
});
