import { freshSeed, runsOf } from '../test/runs';
import { checkSystem } from '../checks/check-system';
import { demoDocuments } from '../test/demo';
import { everyText, expectHarmless, withText } from '../test/harmless';
import { outputFiles } from './outputs';
import { systemFolder } from './system-folder';
import { plainIcon } from '../render/icon';

/** No text from a document can break out of its place in CSS, HTML or code. */

const BREAKOUTS = [
  '</style><script>alert(1)</script>',
  '</script><img src=x onerror=alert(1)>',
  '"><svg onload=alert(1)>',
  "' onfocus='alert(1)",
  '*/ body { display: none } /*',
  '} body { display: none } .x {',
  '; background: url(javascript:alert(1))',
  '\\"; } * { color: red }',
  ']]><!--',
  '\u0000\u2028</title>',
];

const demo = demoDocuments();
const paths = [...demo.keys()].filter(path => path.endsWith('.json'));
const places = paths.flatMap(path => everyText(demo.get(path)).map(at => ({ path, at })));

/** Keys whose texts may be anything, so that all of them can be hostile at once. */
const FREE = new Set([
  'title',
  'subtitle',
  'group',
  'summary',
  'description',
  'because',
  'note',
  'means',
  'caption',
  'use',
  'avoid',
  '$description',
]);
const isFree = (at: readonly (string | number)[]): boolean =>
  FREE.has(String(at.at(-1))) || (at[0] === 'samples' && at[2] === 'content' && !/icon/i.test(String(at[3])));

const SHIFTS = Array.from({ length: runsOf('texts in all places') }, (_, shift) => shift);

test.each(SHIFTS)('texts in every free place of the demo at once stay in theirs, the %d. way', shift => {
  const documents = new Map(demo);
  places.forEach(({ path, at }, index) => {
    const text = BREAKOUTS[(index + shift) % BREAKOUTS.length]!;
    if (isFree(at)) documents.set(path, withText(documents.get(path), at, text));
  });
  const { system } = checkSystem(documents);
  const files = outputFiles(system);
  expect(files.find(file => file.path.endsWith('.html'))!.text.length).toBeGreaterThan(1000);
  expectHarmless(files);
  expect(systemFolder(system).length).toBe(demo.size);
});

/** So many places are tried in a run, others in the next. */
const REPLACED = runsOf('texts replaced');

test('texts that mean something, replaced one by one, stay in their place', () => {
  const meaning = places.filter(({ at }) => !isFree(at));
  expect(meaning.length).toBeGreaterThan(300);
  const step = Math.ceil(meaning.length / REPLACED);
  const first = freshSeed('texts replaced') % step;
  meaning.forEach(({ path, at }, index) => {
    if (index % step !== first) return;
    const text = BREAKOUTS[index % BREAKOUTS.length]!;
    expectHarmless(
      outputFiles(checkSystem(new Map(demo).set(path, withText(demo.get(path), at, text))).system),
    );
  });
}, 240_000);

describe('icons', () => {
  test.each([
    '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script><path d="M0 0"/></svg>',
    '<svg onload="alert(1)"><path d="M0 0" onclick="alert(1)"/></svg>',
    '<svg><foreignObject><iframe src="x"/></foreignObject></svg>',
    '<svg><a href="javascript:alert(1)"><path d="M0 0"/></a></svg>',
    '<svg><path fill="url(#x)" d="M0 0" style="background:url(x)"/></svg>',
    '<svg><use href="http://elsewhere.example/x.svg#y"/></svg>',
  ])('only plain shapes are left of %s', svg => {
    const plain = plainIcon(svg) ?? '';
    expect(plain).not.toMatch(/script|on\w+=|href|url\(|style|foreign|iframe/i);
  });

  test('what is no drawing is refused', () => {
    expect(plainIcon('<html></html>')).toBeNull();
    expect(plainIcon('<svg><path></svg>')).toBeNull();
    expect(plainIcon('')).toBeNull();
  });
});
