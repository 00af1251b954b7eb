import { randomly } from '@periwinkle/core/test/runs';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { fuzzText } from '@periwinkle/core/test/fuzz-text';
import { documentsInZip, ZipFault } from './zip-documents';

const zip = (files: Record<string, string | Uint8Array>): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(files).map(([name, text]) => [name, typeof text === 'string' ? strToU8(text) : text]),
    ),
  );
const faultsOf = (bytes: Uint8Array): readonly string[] => {
  try {
    documentsInZip(bytes, 'a.zip');
  } catch (error) {
    if (error instanceof ZipFault) return error.faults;
    throw error;
  }
  return [];
};
const MANIFEST = '{"format":"periwinkle-system/1"}';

test('documents beside the manifest are taken, wherever it lies; all else is named', () => {
  const { documents, passedOver } = documentsInZip(
    zip({
      'port/system.json': MANIFEST,
      'port/icons/mast.svg': '<svg/>',
      'port/trials/arrival.trial.json': '{"fields":[]}',
      'port/css/index.css': 'a{}',
      'port/components/notes.json': '{}',
      'readme.txt': 'words',
    }),
    'a.zip',
  );
  expect(Object.keys(documents)).toEqual(['system.json', 'icons/mast.svg', 'trials/arrival.trial.json']);
  expect(documents['icons/mast.svg']).toBe('<svg/>');
  expect(passedOver).toEqual(['port/css/index.css', 'port/components/notes.json', 'readme.txt']);
});

test('whatever stands in the way is told, all of it, and nothing is taken', () => {
  expect(faultsOf(strToU8('no archive'))).toEqual(['“a.zip” is no zip archive.']);
  expect(faultsOf(zip({ 'x.css': '' }))[0]).toContain('holds no system.json');
  expect(
    faultsOf(
      zip({
        'system.json': MANIFEST,
        'tokens/a.tokens.json': '{',
        'tokens/b.tokens.json': '{"__proto__":1}',
        'icons/c.svg': new Uint8Array([0xff, 0xfe, 0xff]),
      }),
    ),
  ).toEqual([
    expect.stringContaining('tokens/a.tokens.json: This is not JSON'),
    expect.stringContaining('tokens/b.tokens.json: The name “__proto__”'),
    'icons/c.svg: This is not UTF-8.',
  ]);
});

test('what is too much is refused before it is unpacked, by name', () => {
  const large = ' '.repeat(QUOTAS.documentLetters + 1);
  expect(faultsOf(zip({ 'system.json': MANIFEST, 'tokens/a.tokens.json': large }))).toEqual([
    'tokens/a.tokens.json is larger than 8 MiB.',
  ]);
  const most = ' '.repeat(QUOTAS.documentLetters);
  const many = Object.fromEntries(
    Array.from({ length: 5 }, (_, index) => [`tokens/t${index}.tokens.json`, most]),
  );
  expect(faultsOf(zip({ 'system.json': MANIFEST, ...many }))).toEqual([
    'The documents are 41 MiB together; 32 MiB can be taken in.',
  ]);
});

test('whatever bytes come, there are documents or reasons, soon', () => {
  const name = fc.oneof(
    fc.constantFrom(
      'system.json',
      'components/a.component.json',
      'icons/a.svg',
      'guide/a.md',
      '../system.json',
      '/',
      '',
    ),
    fuzzText.map(text => text.slice(0, 60)),
  );
  const archive = fc
    .array(fc.tuple(name, fc.oneof(fuzzText, fc.constant('{}'))), { maxLength: 4 })
    .map(files => zipSync(Object.fromEntries(files.map(([path, text]) => [path, strToU8(text)]))));
  const damages = fc.array(fc.tuple(fc.nat(), fc.nat(255)), { maxLength: 6 });
  let slowest = 0;
  fc.assert(
    fc.property(archive, damages, fc.nat(3), (bytes, changes, cut) => {
      for (const [place, byte] of changes) bytes[place % bytes.length] = byte;
      const given = cut === 0 ? bytes.subarray(0, Math.floor(bytes.length / 2)) : bytes;
      const began = performance.now();
      try {
        const { documents } = documentsInZip(given, 'any.zip');
        expect(Object.keys(documents)).toContain('system.json');
      } catch (error) {
        if (!(error instanceof ZipFault)) throw error;
        expect(error.faults.length).toBeGreaterThan(0);
      }
      slowest = Math.max(slowest, performance.now() - began);
    }),
    randomly('archives'),
  );
  process.stderr.write(`fuzz of archives: the slowest took ${slowest.toFixed(0)} ms\n`);
}, 600_000);
