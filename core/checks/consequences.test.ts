import { freshSeed, runsOf } from '../test/runs';
import fc from 'fast-check';
import { isObject, valueAt } from '../json/json';
import { demoDocuments } from '../test/demo';
import { checkSystem } from './check-system';

const demo = demoDocuments();
const FIELD = 'components/text-field.component.json';

type Loose = Record<string, unknown>;

function damaged(path: string, change: (document: Loose) => void): string[] {
  const document = structuredClone(demo.get(path)) as Loose;
  change(document);
  return checkSystem(new Map(demo).set(path, document)).problems.map(({ file, pointer, code }) =>
    [file === path ? '' : file, pointer, code].filter(Boolean).join(' '),
  );
}

describe('one cause, one problem', () => {
  test('an axis that is misspelt where it is declared does not blame the rules that name it', () => {
    const problems = damaged(FIELD, document => {
      (document['axes'] as { id: string }[]).find(axis => axis.id === 'pointer')!.id = 'pionter';
    });
    expect(problems).toEqual([expect.stringMatching(/^\/axes\/\d+\/id unknown-state$/)]);
  });

  test('a broken axis, a broken part and a misspelt list are each reported once', () => {
    expect(
      damaged(FIELD, document => {
        (document['axes'] as unknown[])[0] = { id: 'size', kind: 'option', values: 'many' };
      }),
    ).toEqual(['/axes/0/values wrong-type']);
    expect(
      damaged(FIELD, document => {
        (document['anatomy'] as { children: { kind: unknown }[] }).children[0]!.kind = 7;
      }),
    ).toEqual(['/anatomy/children/0/kind wrong-type']);
    expect(
      damaged(FIELD, document => {
        document['axs'] = document['axes'];
        delete document['axes'];
      }),
    ).toEqual(['/axs unknown-key']);
    expect(
      damaged(FIELD, document => {
        document['anatmy'] = document['anatomy'];
        delete document['anatomy'];
      }),
    ).toEqual(['/anatmy unknown-key']);
  });

  test('a token that cannot be resolved is reported where it stands, not at its users', () => {
    const broken = damaged('tokens/raw.tokens.json', document => {
      const raw = valueAt(document, ['raw', 'quaystone', '50']) as Record<string, unknown>;
      raw['$value'] = '{raw.quaystone.51}';
    });
    expect(broken).toEqual(['/raw/quaystone/50/$value missing-token']);
    expect(
      damaged('tokens/raw.tokens.json', document => {
        (document['raw'] as Record<string, unknown>)['quaystone'] = 'grey';
      }),
    ).toEqual(['/raw/quaystone wrong-type']);
  });

  test('a token that is not there is reported at each place that names it', () => {
    const problems = damaged('tokens/raw.tokens.json', document => {
      delete (valueAt(document, ['raw', 'line']) as Record<string, unknown>)['hair'];
    });
    expect(problems.length).toBeGreaterThan(1);
    expect(problems.every(problem => /missing-token|unknown-token/.test(problem))).toBe(true);
  });

  test('a token that is there by night only is missing by day, and the other way round', () => {
    const extra = structuredClone(demo.get('tokens/night.tokens.json')) as Record<string, unknown>;
    extra['moon'] = { $type: 'color', $value: '{raw.quaystone.50}' };
    const field = structuredClone(demo.get(FIELD)) as { rules: { set: object }[] };
    field.rules[0]!.set = { ...field.rules[0]!.set, message: { color: '{moon}' } };
    const { problems } = checkSystem(new Map(demo).set('tokens/night.tokens.json', extra).set(FIELD, field));
    expect(problems.map(problem => `${problem.pointer} ${problem.code}`)).toEqual([
      '/rules/0/set/message/color unknown-token',
    ]);
  });
});

describe('a document that is broken in places', () => {
  test('is checked everywhere else, and places are those of the whole', () => {
    const problems = damaged(FIELD, document => {
      const rules = document['rules'] as { when: unknown; set: Record<string, Record<string, unknown>> }[];
      rules[0]!.when = 'always';
      rules[1]!.set['frame']!['height'] = 40;
      rules[2]!.set['frame'] = { 'border-colour': 'red' };
      rules[4]!.when = { size: 'enormous' };
      (document['situations'] as { when: unknown }[])[3]!.when = { pointer: 'hovering' };
      document['colour'] = 'blue';
    });
    expect(problems.sort()).toEqual([
      '/colour unknown-key',
      '/rules/0/when wrong-type',
      '/rules/1/set/frame/height wrong-type',
      '/rules/2/set/frame/border-colour unknown-property',
      '/rules/4/when/size unknown-value',
      '/situations/3/when/pointer unknown-value',
    ]);
  });

  test('hundreds of problems come out in one run, none twice', () => {
    const document = structuredClone(demo.get(FIELD)) as Loose;
    const rules = document['rules'] as { id: string; when: object; set: object }[];
    document['rules'] = Array.from({ length: 150 }, (_, index) => ({
      ...rules[index % rules.length]!,
      id: `r${index}`,
      when: index % 3 === 0 ? { size: `size${index}` } : {},
      set: { [index % 3 === 1 ? `frame${index}` : 'frame']: { height: `{field.hight.${index}}` } },
    }));
    const { problems } = checkSystem(new Map(demo).set(FIELD, document));
    const keys = problems.map(({ file, pointer, code }) => `${file} ${pointer} ${code}`);
    expect(keys.length).toBeGreaterThanOrEqual(150);
    expect(new Set(keys).size).toBe(keys.length);
  });
});

describe('wounds at random', () => {
  const seed = freshSeed('wounds');
  const deep = (levels: number): unknown =>
    Array.from({ length: levels }).reduce<unknown>(
      inner => ({ children: [inner], part: 'x', kind: 'row' }),
      {},
    );
  const WOUNDS: Readonly<Record<string, () => unknown>> = {
    nothing: () => null,
    number: () => -42,
    huge: () => 1e308,
    text: () => 'boo',
    long: () => 'x'.repeat(20_000),
    list: () => [1, 'a', null, []],
    object: () => ({ surprise: {} }),
    deep: () => deep(60),
    token: () => '{raw.space.1}',
    self: () => '{color.line.over}',
    circle: () => 'calc(@frame.height + 1px)',
    prototype: () =>
      JSON.parse('{"__proto__": {"polluted": true}, "constructor": "x", "toString": 1}') as unknown,
  };
  const wound = fc.record({
    path: fc.constantFrom(...[...demo.keys()].filter(path => path.endsWith('.json'))),
    place: fc.nat(),
    kind: fc.constantFrom('delete', ...Object.keys(WOUNDS)),
  });
  const everyPlace = (node: unknown, at: string[] = []): string[][] =>
    typeof node === 'object' && node !== null
      ? Object.entries(node).flatMap(([key, value]) => [[...at, key], ...everyPlace(value, [...at, key])])
      : [];

  test('one to twelve of them never crash the check; every problem has a place that is there, and none comes twice', () => {
    fc.assert(
      fc.property(fc.array(wound, { minLength: 1, maxLength: 12 }), wounds => {
        const documents = new Map(demo);
        for (const { path, place, kind } of wounds) {
          const document = structuredClone(documents.get(path)) as Record<string, unknown>;
          const places = everyPlace(document);
          if (places.length === 0) continue;
          const at = places[place % places.length]!;
          const parent = valueAt(document, at.slice(0, -1)) as Record<string, unknown> | unknown[];
          if (kind !== 'delete') (parent as Record<string, unknown>)[at.at(-1)!] = WOUNDS[kind]!();
          else if (Array.isArray(parent)) parent.splice(Number(at.at(-1)), 1);
          else delete parent[at.at(-1)!];
          documents.set(path, document);
        }
        const { problems } = checkSystem(documents);
        const keys = problems.map(each => [each.file, each.pointer, each.code, each.message].join('\n'));
        expect(new Set(keys).size).toBe(keys.length);
        for (const { file, pointer, message } of problems) {
          expect(documents.has(file) || pointer === '').toBe(true);
          expect(message.length).toBeGreaterThan(8);
          const steps = pointer.split('/').slice(1, -1);
          const around = valueAt(
            documents.get(file),
            steps.map(step => step.replace(/~1/g, '/').replace(/~0/g, '~')),
          );
          expect([pointer, isObject(around) || Array.isArray(around) || pointer === '']).toEqual([
            pointer,
            true,
          ]);
        }
        expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
      }),
      { numRuns: runsOf('wounds'), seed },
    );
  }, 120_000);
});
