import { freshSeed, runsOf } from '../test/runs';
import fc from 'fast-check';
import { parse as parseCss } from 'css-tree';
import { readAct, RefusedAct } from '../behaviour/acts';
import { CalcSyntaxError, parseCalc } from '../css/calc';
import { iconProblems, plainIcon } from '../render/icon';
import { PatchError, type PatchOperation } from '../patch/operations';
import { applyPatch } from '../patch/patch';
import { pointerSteps } from '../json/json';
import { readJson } from '../json/read-json';
import { demoDocuments } from '../test/demo';
import { fuzzText } from '../test/fuzz-text';
import { mediaQuery } from '../tokens/media-query';
import { PROPERTIES } from '../css/property-registry';
import { readValue } from '../css/value-syntax';
import { patternFault } from './pattern-fault';

/**
 * Whatever is read, nothing throws but what says why, and what is let through cannot end the declaration, the element or
 * the query that it stands in.
 */

/** In all readers together. */
const INPUTS = runsOf('readers of text');
/** Does something that may refuse in its own words; anything else it throws goes on. */
function unless<Kind>(refusal: new (...args: never[]) => Kind, work: () => void): void {
  try {
    work();
  } catch (error) {
    if (!(error instanceof refusal)) throw error;
  }
}

/** Whether a declaration ends where it should, and nothing comes after it. */
function isOneDeclaration(css: string): boolean {
  const sheet = parseCss(`a{x:${css}}b{y:z}`, { onParseError: () => {} }) as unknown as {
    children: { toArray: () => { type: string; block?: { children: { toArray: () => unknown[] } } }[] };
  };
  const rules = sheet.children.toArray();
  return (
    rules.length === 2 &&
    rules.every(({ type, block }) => type === 'Rule' && block?.children.toArray().length === 1)
  );
}

const SAFE_SVG = /^<svg(?: [\w:-]+="[^"<>]*")*>(?:<\/?[a-z]+(?: [\w:-]+="[^"<>]*")*\/?>|[^<>])*<\/svg>$/;
const field = demoDocuments().get('components/text-field.component.json');

const READERS: readonly (readonly [
  name: string,
  share: number,
  read: (text: string, pick: number) => void,
])[] = [
  [
    'values',
    5,
    (each, pick) => {
      const property = PROPERTIES[pick % PROPERTIES.length]!;
      const read = readValue(property, each);
      if (read.ok && read.value.kind === 'literal' && property.kind !== 'presence')
        expect([property.name, each, isOneDeclaration(read.value.css)]).toEqual([property.name, each, true]);
    },
  ],
  ['calculations', 1, each => unless(CalcSyntaxError, () => parseCalc(`calc(${each})`))],
  [
    'media queries',
    2,
    each => {
      const query = mediaQuery(each);
      if (query !== null) {
        expect(query).not.toMatch(/[{};<]/);
        const sheet = parseCss(`@media ${query}{a{b:c}}d{e:f}`) as unknown as { children: { size: number } };
        expect([query, sheet.children.size]).toEqual([query, 2]);
      }
    },
  ],
  [
    'drawings',
    2,
    each => {
      for (const svg of [each, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 8 8">${each}</svg>`]) {
        iconProblems(svg);
        const plain = plainIcon(svg);
        if (plain !== null) expect(plain).toMatch(SAFE_SVG);
      }
    },
  ],
  [
    'JSON',
    2,
    each => {
      for (const json of [each, `{"a":[${each}]}`, `{"a":"${each}"}`]) {
        const read = readJson(json);
        if (read.ok) expect(JSON.stringify(read.value)).not.toContain('"__proto__":');
      }
    },
  ],
  [
    'patches',
    2,
    (each, pick) => {
      const steps = pointerSteps(each);
      const op = (['add', 'remove', 'replace', 'move', 'copy', 'test'] as const)[pick % 6]!;
      const operations = [
        { op, path: each, from: '/rules/0', value: each },
        { op, path: `/rules${steps ? each : '/-'}`, from: each, value: { [each]: [each] } },
      ] as unknown as PatchOperation[];
      unless(PatchError, () => applyPatch(field, operations));
      expect(({} as Record<string, unknown>)['op']).toBeUndefined();
    },
  ],
  ['patterns', 1, each => void patternFault(each)],
  ['acts', 1, each => unless(RefusedAct, () => readAct(each))],
];
const SHARES = READERS.reduce((sum, [, share]) => sum + share, 0);

test.each(READERS)(
  '%s',
  (name, share, read) => {
    const seed = freshSeed(`fuzz of ${name}`);
    let slowest = 0;
    fc.assert(
      fc.property(fuzzText, fc.nat(), (each, pick) => {
        const began = performance.now();
        read(each, pick);
        slowest = Math.max(slowest, performance.now() - began);
      }),
      { seed, numRuns: Math.ceil((INPUTS * share) / SHARES), endOnFailure: false },
    );
    process.stderr.write(`fuzz of ${name}: the slowest took ${slowest.toFixed(0)} ms\n`);
  },
  600_000,
);
