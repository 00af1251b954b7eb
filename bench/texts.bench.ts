import { demoDocuments } from '../core/test/demo';
import { many, placesIn, replaced, SlowChecks } from './support/slow-checks';

/**
 * Every text of the demo's documents, one at a time, made one on which patterns and parsers are known to lose themselves, as long as a value may
 * be and much longer: how long the check of the system takes. `PERIWINKLE_TEXTS` says which documents, by a part of their paths: all together
 * take hours.
 */

const only = process.env['PERIWINKLE_TEXTS'] ?? 'label';
const LENGTHS = [3_900, 95_000];

/** What is repeated until it is long enough. */
const REPEATED: readonly string[] = [
  '(',
  '[',
  '{',
  '<',
  '*a **b ',
  '_a __',
  '{a.b} ',
  '@a',
  'a@',
  '@a.width ',
  ' ',
  '\n',
  '<a><b>',
  '&amp',
  '&#',
  'a, ',
  '-',
  '9',
  '"\'',
  '`a ``',
  '> ',
  '- ',
  '[a](',
  '![',
  '#',
  'a\n=\n',
  '```\n',
  '<!--',
  '/*',
  'http://',
  '|a\n|-',
  '(a: 1px) and ',
  'not ',
  'calc(1px + ',
  'var(--',
  'a/',
  '../',
  'a{b:c}',
  '\u{1F6A2}',
  '\u202e\u05d0',
  '\ud800',
  '\u0000',
  '\\',
  '%',
  '~1',
  '$ref',
];
/** Whole texts of about so many letters. */
const WHOLE: readonly ((letters: number) => string)[] = [
  letters => `{${filled('a.', letters)}}`,
  letters => `${filled(' ', letters)}x`,
  letters => `calc(${filled('(1px + ', letters)}`,
  letters => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24">${filled('<g>', letters)}`,
  letters =>
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><path d="${filled('M1-1.1.1e', letters)}"/></svg>`,
  letters =>
    many(Math.min(400, letters), depth => `${' '.repeat(depth)}- a`)
      .join('\n')
      .slice(0, letters),
];

const filled = (unit: string, letters: number): string =>
  unit.repeat(Math.ceil(letters / unit.length)).slice(0, letters);
const texts = LENGTHS.flatMap(letters => [
  ...REPEATED.map(unit => ({ what: JSON.stringify(unit), text: filled(unit, letters) })),
  ...WHOLE.map(make => ({ what: JSON.stringify(make(letters).slice(0, 20)), text: make(letters) })),
]);

const demo = demoDocuments();
const checks = new SlowChecks(demo);
for (const [path, document] of demo) {
  if (!path.includes(only)) continue;
  for (const place of placesIn(document, node => typeof node === 'string'))
    for (const { what, text } of texts)
      checks.check(
        `${path} /${place.join('/')}, ${text.length} letters of ${what}`,
        new Map(demo).set(path, replaced(document, place, text)),
        text.length,
      );
}
checks.tell();
