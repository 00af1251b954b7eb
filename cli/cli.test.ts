import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from './source/periwinkle';

const DEMO = join(process.cwd(), 'demo/quayside');
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'periwinkle-cli-'));
  cpSync(DEMO, join(folder, 'system'), { recursive: true });
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

function periwinkle(...args: string[]): { status: number; out: string; err: string; json: () => never } {
  let out = '';
  let err = '';
  const status = run(args, { out: text => (out += text), err: text => (err += text) });
  return { status, out, err, json: () => JSON.parse(out) as never };
}

const system = (): string => join(folder, 'system');
const edit = (path: string, from: string | RegExp, to: string): void => {
  const file = join(system(), path);
  const text = readFileSync(file, 'utf8');
  const changed = text.replace(from, to);
  expect(changed).not.toBe(text);
  writeFileSync(file, changed);
};
const FIELD = 'components/text-field.component.json';
/** Leaves only the field that is derived from none, to be changed at will. */
const alone = (): void => {
  for (const name of readdirSync(join(system(), 'components')))
    if (!FIELD.endsWith(name)) rmSync(join(system(), 'components', name));
  rmSync(join(system(), 'trials'), { recursive: true });
};

describe('check', () => {
  test('a sound system', () => {
    expect(periwinkle('check', system())).toMatchObject({ status: 0, out: 'Everything holds.\n' });
    expect(periwinkle('check', system(), '--json').json()).toEqual({ problems: [] });
  });

  test('each problem with file, line and column; the JSON alone on standard output', () => {
    edit(FIELD, '"border-style": "dashed"', '"border-stile": "dashed"');
    edit('tokens/day.tokens.json', '{raw.quaystone.90}', '{raw.quaystone.99}');
    const plain = periwinkle('check', system());
    expect(plain.status).toBe(1);
    expect(plain.out).toMatch(
      /^\/.*\/system\/components\/text-field\.component\.json:\d+:\d+: error: There is no property “border-stile”.* Perhaps: border-style \(unknown-property\)$/m,
    );
    const { problems } = periwinkle('check', system(), '--json').json() as {
      problems: { file: string; line: number; column: number; pointer: string }[];
    };
    const misspelt = problems.find(
      problem => problem.file === FIELD && problem.pointer.endsWith('border-stile'),
    )!;
    const line = readFileSync(join(system(), FIELD), 'utf8').split('\n')[misspelt.line - 1]!;
    expect(line.slice(misspelt.column - 1)).toMatch(/^"border-stile"/);
  });

  test('a file that is no JSON is one problem with its place; the rest is still checked', () => {
    edit('tokens/night.tokens.json', '"text": {', '"text": ');
    edit(FIELD, '"id": "text-field"', '"id": "text-field", "sumary": ""');
    const { problems } = periwinkle('check', system(), '--json').json() as {
      problems: { file: string; code: string; line: number }[];
    };
    expect(problems.map(problem => `${problem.file} ${problem.code}`)).toEqual([
      `${FIELD} unknown-key`,
      'tokens/night.tokens.json invalid-json',
    ]);
    expect(problems[1]!.line).toBeGreaterThan(1);
  });
});

describe('count', () => {
  test('component, condition and system', () => {
    expect(periwinkle('count', system(), '--json').json()).toEqual({
      components: [
        { id: 'text-field', combinations: '26400' },
        { id: 'draught', combinations: '13200' },
        { id: 'harbour-dues', combinations: '6600' },
        { id: 'tide-time', combinations: '13200' },
        { id: 'crew', combinations: '14148' },
        { id: 'berth', combinations: '14472' },
        { id: 'find-vessel', combinations: '6600' },
        { id: 'notes', combinations: '5940' },
        { id: 'passphrase', combinations: '11100' },
        { id: 'gate-code', combinations: '102' },
        { id: 'label', combinations: '12' },
        { id: 'message', combinations: '3' },
        { id: 'counter', combinations: '4' },
        { id: 'list-entry', combinations: '252' },
        { id: 'step-button', combinations: '30' },
        { id: 'icon-button', combinations: '30' },
        { id: 'code-box', combinations: '60' },
      ],
      contexts: 4,
      total: '448612',
    });
    const when = (condition: string): string =>
      (
        periwinkle('count', system(), '--when', condition, '--json').json() as {
          components: { combinations: string }[];
        }
      ).components[0]!.combinations;
    expect(BigInt(when('size=large')) * 3n).toBe(26400n);
    expect(BigInt(when('pointer=over')) + BigInt(when('pointer=away')) >= 26400n).toBe(true);
    expect(when('availability=disabled,pointer=over')).toBe('0');
  });

  test('a component that has not the axis has no such combination; an axis that none has is misspelt', () => {
    const counted = periwinkle('count', system(), '--when', 'trailing=unit').out;
    expect(counted).toMatch(
      /^text-field\t13200\ndraught\t13200\nharbour-dues\t0\ntide-time\t6600\ncrew\t0\n/,
    );
    const wrong = periwinkle('count', system(), '--when', 'trialing=unit');
    expect([wrong.status, wrong.err]).toEqual([2, expect.stringMatching(/trialing.*Did you mean trailing/s)]);
  });

  test('of a derived component rules have the ids of its base, also where something lies over them', () => {
    const cells = join(folder, 'cells.json');
    writeFileSync(cells, JSON.stringify([{ pointer: 'over' }]));
    const printed = periwinkle('resolve', system(), '--component', 'notes', '--cells', cells, '--json');
    const [{ parts }] = printed.json() as [{ parts: Record<string, Record<string, object>> }];
    expect(parts['frame']!['height']).toEqual({
      value: '102px',
      rule: 'base',
      trail: [{ rule: 'base', text: 'calc(3 * {field.height.medium})' }],
    });
    expect(parts['frame']!['border-color']).toMatchObject({ token: 'color.line.over', rule: 'over' });
    expect(parts['unit']).toBeUndefined();
  });
});

describe('resolve', () => {
  test('value, token, rule and trail, in the order of the cells', () => {
    const cells = join(folder, 'cells.json');
    writeFileSync(
      cells,
      JSON.stringify([
        { size: 'large', pointer: 'over' },
        { availability: 'disabled', pointer: 'down' },
      ]),
    );
    const [over, disabled] = periwinkle(
      'resolve',
      system(),
      '--component',
      'text-field',
      '--cells',
      cells,
      '--context',
      'theme=night',
      '--json',
    ).json() as {
      combination: Record<string, string>;
      parts: Record<string, Record<string, { value: string }>>;
    }[];
    expect(over!.parts['frame']!['border-color']).toEqual({
      value: '#5cbccb',
      token: 'color.line.over',
      rule: 'over',
      trail: [
        { rule: 'base', text: '{color.line.rest}' },
        { rule: 'over', text: '{color.line.over}' },
      ],
    });
    expect(over!.parts['frame']!['height']).toMatchObject({ value: '40px' });
    expect(over!.parts['control']!['height']).toMatchObject({ value: '38px', rule: 'base' });
    expect(disabled!.combination).toMatchObject({ pointer: 'away', availability: 'disabled' });
    expect(disabled!.parts['footer']!['present']!.value).toBe('false');
  });
});

describe('play', () => {
  const played = (acts: unknown, ...more: string[]) => {
    const file = join(folder, 'acts.json');
    writeFileSync(file, JSON.stringify(acts));
    return periwinkle('play', system(), '--component', 'text-field', '--script', file, '--json', ...more);
  };
  beforeEach(() => {
    edit(
      FIELD,
      '"guide": {',
      '"behaviour": { "value": { "kind": "text" }, "checks": [{ "id": "capital", "kind": "pattern", "pattern": "^[A-Z]", "message": "capital" }] }, "guide": {',
    );
  });

  test('one entry for each act', () => {
    const entries = played([
      'press frame',
      'key Control+a',
      'type osprey',
      'wait 300ms',
      'leave',
    ]).json() as object[];
    expect(entries).toHaveLength(5);
    expect(entries[0]).toMatchObject({
      act: 'press frame',
      at: 0,
      focus: 'control',
      messages: [],
      announced: [],
    });
    expect(entries[4]).toMatchObject({
      act: 'leave',
      at: 300,
      value: 'osprey',
      focus: null,
      combination: { validity: 'invalid', content: 'filled', focus: 'out', size: 'medium' },
      messages: ['capital'],
      announced: ['capital'],
    });
  });

  test('an act that cannot be done stops it with status 1, and says which and why', () => {
    const { status, err, json } = played(['press frame', 'press message', 'leave']);
    expect(status).toBe(1);
    expect(err).toBe('periwinkle: Act 2, “press message”: “message” is not there.\n');
    expect(json()).toHaveLength(1);
  });

  test.each([
    [['press frame', 3], [], '--script: entry 1 is no text.'],
    [{}, [], 'must hold an array of acts'],
    [[], ['--set', 'size=vast'], '“vast” is no value of size'],
    [[], ['--set', 'colour=red'], 'no axis “colour”'],
    [[], ['--sample', 'nobody'], 'nobody'],
  ])('wrong use: %j %j', (acts, more, reason) => {
    const { status, err } = played(acts, ...more);
    expect(status).toBe(2);
    expect(err).toContain(reason);
  });
});

describe('geometry', () => {
  const laidOut = (cells: unknown, ...more: string[]) => {
    const file = join(folder, 'cells.json');
    writeFileSync(file, JSON.stringify(cells));
    return periwinkle('geometry', system(), '--cells', file, '--json', ...more);
  };

  test('where parts lie, those that are absent left out', () => {
    const [small, wrong] = laidOut(
      [{ size: 'small' }, { validity: 'invalid', content: 'filled' }],
      '--component',
      'text-field',
      '--width',
      '400',
    ).json() as { combination: Record<string, string>; parts: Record<string, unknown> }[];
    expect(small!.combination).toMatchObject({ size: 'small', validity: 'none' });
    expect(small!.parts['root']).toEqual({ x: 0, y: 0, width: 400, height: 48.8, estimated: false });
    expect(small!.parts['frame']).toEqual({ x: 0, y: 20.8, width: 400, height: 28, estimated: false });
    expect(small!.parts['control']).toEqual({ x: 7, y: 21.8, width: 386, height: 26, estimated: false });
    expect(small!.parts).not.toHaveProperty('message');
    expect(wrong!.parts).toHaveProperty('message');
  });

  test('copies of what is repeated each have a place', () => {
    const open = { disclosure: 'open', focus: 'keyboard', content: 'filled' };
    const [berth] = laidOut([open], '--component', 'berth', '--sample', 'berth').json() as {
      parts: Record<string, { y: number; height: number }>;
    }[];
    const tops = [1, 2, 3].map(copy => berth!.parts[`option:${copy}/root`]!.y);
    expect(tops[1]! - tops[0]!).toBe(berth!.parts['option:1/root']!.height);
    expect(tops[2]! - tops[1]!).toBe(berth!.parts['option:2/root']!.height);
  });

  test.each([
    [['--component', 'berth', '--width', '0'], /--width: “0” is no number of px/],
    [['--component', 'berth', '--width', 'wide'], /--width/],
    [['--component', 'berth', '--sample', 'birth'], /did you mean berth\?/],
  ])('%j is refused', (more, reason) => {
    const { status, err } = laidOut([{}], ...more);
    expect([status, err]).toEqual([2, expect.stringMatching(reason)]);
  });
});

describe('tokens', () => {
  test('type, value and CSS by path, in a context', () => {
    const day = periwinkle('tokens', system(), '--json').json() as Record<string, unknown>;
    expect(day['field.icon']).toEqual({
      type: 'dimension',
      value: { value: 1, unit: 'rem' },
      css: '1rem',
    });
    expect(day['raw.type.weight.strong']).toEqual({ type: 'fontWeight', value: 600, css: '600' });
    const night = periwinkle('tokens', system(), '--context', 'theme=night', '--json').json() as Record<
      string,
      { css: string }
    >;
    expect(night['color.text.body']!.css).not.toBe((day['color.text.body'] as { css: string }).css);
  });
});

describe('build', () => {
  test('the same bytes twice; nothing at all while there are errors', () => {
    const once = join(folder, 'once');
    const twice = join(folder, 'twice');
    expect(periwinkle('build', system(), '--out', once).status).toBe(0);
    expect(periwinkle('build', system(), '--out', twice).status).toBe(0);
    for (const file of [
      'css/tokens.css',
      'css/layered/text-field.css',
      'html/text-field.html',
      'README.md',
    ]) {
      expect(readFileSync(join(once, file), 'utf8')).toBe(readFileSync(join(twice, file), 'utf8'));
    }
    edit(FIELD, '{color.line.over}', '{color.line.ovr}');
    const broken = join(folder, 'broken');
    expect(periwinkle('build', system(), '--out', broken)).toMatchObject({
      status: 1,
      err: expect.stringContaining('Nothing was written') as string,
    });
    expect(() => readFileSync(join(broken, 'tokens.css'))).toThrow();
  });
});

describe('wrong use ends with status 2 and one line that helps', () => {
  test.each<[string, string[], RegExp]>([
    ['a folder that is not there', ['check', '/nowhere/at/all'], /does not exist/],
    ['no command', ['chek', 'x'], /unknown command/],
    [
      'a component that is not there',
      ['count', DEMO, '--component', 'text-feild'],
      /did you mean text-field/,
    ],
    ['a condition on no axis', ['count', DEMO, '--when', 'siz=large'], /Did you mean size/],
    ['a condition that is none', ['count', DEMO, '--when', 'large'], /name=value/],
    ['an unknown context', ['tokens', DEMO, '--context', 'theme=nigth'], /Did you mean night/],
    [
      'cells that are not there',
      ['resolve', DEMO, '--component', 'text-field', '--cells', '/no/cells.json'],
      /does not exist/,
    ],
    ['a required option left out', ['resolve', DEMO, '--component', 'text-field'], /--cells/],
    ['a strength there is not', ['cover', DEMO, '--component', 'text-field', '--strength', '4'], /2 or 3/],
    ['contested without a component', ['contested', DEMO], /--component/],
  ])('%s', (_, args, message) => {
    const { status, err, out } = periwinkle(...args);
    expect({ status, out }).toEqual({ status: 2, out: '' });
    expect(err).toMatch(message);
  });
});

describe('folders as people have them', () => {
  const codes = (): string[] =>
    (
      periwinkle('check', system(), '--json').json() as { problems: { file: string; code: string }[] }
    ).problems.map(({ file, code }) => `${file} ${code}`);

  test('links and misnamed files are told, other files are nobody’s business', () => {
    symlinkSync(join(DEMO, FIELD), join(system(), 'components/linked.component.json'));
    writeFileSync(join(system(), 'components/notes.json'), '{}');
    writeFileSync(join(system(), 'tokens/day copy.tokens.json'), '{}');
    writeFileSync(join(system(), 'stray.component.json'), '{}');
    writeFileSync(join(system(), 'README.md'), 'ours');
    writeFileSync(join(system(), 'icons/.keep'), '');
    expect(codes()).toEqual([
      'components/linked.component.json not-a-file',
      'components/notes.json misnamed-file',
      'stray.component.json misnamed-file',
      'tokens/day copy.tokens.json misnamed-file',
    ]);
    expect(periwinkle('check', system()).status).toBe(0);
  });

  test('JSON nested thousands deep is told with its place', () => {
    writeFileSync(join(system(), 'tokens/deep.tokens.json'), `${'{"a":'.repeat(6000)}1${'}'.repeat(6000)}`);
    expect(codes()).toContain('tokens/deep.tokens.json too-deep');
  });

  test.each([
    ['inside the system', () => join(system(), 'dist'), /lies inside the system/],
    ['the system itself', () => system(), /lies inside the system/],
    ['a file', () => join(system(), 'system.json'), /is a file/],
    ['under a file', () => join(system(), 'system.json', 'dist'), /is a file/],
  ])('an output folder that is %s is refused', (_, out, message) => {
    const before = readdirSync(system(), { recursive: true });
    const { status, err } = periwinkle('build', system(), '--out', out());
    expect(status).toBe(2);
    expect(err).toMatch(message);
    expect(readdirSync(system(), { recursive: true })).toEqual(before);
  });

  test('cells that are a folder, or have values that are not there', () => {
    const cells = join(folder, 'cells.json');
    writeFileSync(cells, '[{ "size": "huge" }]');
    const wrong = periwinkle('resolve', system(), '--component', 'text-field', '--cells', cells);
    expect([wrong.status, wrong.err]).toEqual([
      2,
      expect.stringMatching(/entry 0 names “huge”, which is no value of size/),
    ]);
    const nowhere = periwinkle('resolve', system(), '--component', 'text-field', '--cells', folder);
    expect([nowhere.status, nowhere.err]).toEqual([2, expect.stringMatching(/is a folder/)]);
  });

  test('what is no longer made is taken out of a folder that we made; what others put there stays', () => {
    const out = join(folder, 'dist');
    expect(periwinkle('build', system(), '--out', out).status).toBe(0);
    writeFileSync(join(out, 'css/own.css'), 'a {}');
    alone();
    edit(FIELD, '"id": "text-field"', '"id": "line"');
    const { status, err } = periwinkle('build', system(), '--out', out);
    expect(status).toBe(0);
    expect(err).toContain('css/text-field.css (taken out)');
    const files = readdirSync(join(out, 'css')).sort();
    expect(files).toEqual(['index.css', 'layered', 'line.css', 'own.css', 'tokens.css']);
  });

  test('contested --fail is for build servers', () => {
    const args = ['contested', system(), '--component', 'text-field', '--fail'];
    expect(periwinkle(...args).status).toBe(0);
    alone();
    edit(FIELD, /"decisions": \[[\s\S]*?\n {2}\],\n/, '');
    expect(periwinkle(...args).status).toBe(1);
    expect(periwinkle(...args.slice(0, -1)).status).toBe(0);
  });
});

describe('a fault in one component', () => {
  const cells = (): string => {
    const file = join(folder, 'cells.json');
    writeFileSync(file, '[{}]');
    return file;
  };
  const script = (): string => {
    const file = join(folder, 'script.json');
    writeFileSync(file, '["press control"]');
    return file;
  };
  beforeEach(() => edit('components/notes.component.json', '"textarea"', '"textaria"'));

  test.each<[string, () => string[]]>([
    ['resolve', () => ['resolve', system(), '--component', 'berth', '--cells', cells(), '--json']],
    ['geometry', () => ['geometry', system(), '--component', 'berth', '--cells', cells(), '--json']],
    ['play', () => ['play', system(), '--component', 'berth', '--script', script(), '--json']],
    ['count', () => ['count', system(), '--component', 'berth', '--json']],
    ['cover', () => ['cover', system(), '--component', 'berth', '--strength', '2', '--json']],
    ['build', () => ['build', system(), '--component', 'berth', '--out', join(folder, 'out')]],
  ])('keeps %s from answering about no other', (_, args) => {
    const { status, err } = periwinkle(...args());
    expect(err).toContain('in documents that this does not need');
    expect(status).toBe(0);
  });

  test('but about those that stand on it', () => {
    edit(FIELD, '"element": "input"', '"element": "inputt"');
    expect(periwinkle('resolve', system(), '--component', 'berth', '--cells', cells()).status).toBe(1);
  });
});
