import { strToU8, zipSync } from 'fflate';
import { LIMITS } from '@periwinkle/core/formats/limits';
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
  const large = ' '.repeat(LIMITS.documentLetters + 1);
  expect(faultsOf(zip({ 'system.json': MANIFEST, 'tokens/a.tokens.json': large }))).toEqual([
    'tokens/a.tokens.json is larger than 8 MiB.',
  ]);
  const most = ' '.repeat(LIMITS.documentLetters);
  const many = Object.fromEntries(
    Array.from({ length: 5 }, (_, index) => [`tokens/t${index}.tokens.json`, most]),
  );
  expect(faultsOf(zip({ 'system.json': MANIFEST, ...many }))).toEqual([
    'The documents are 41 MiB together; 32 MiB can be taken in.',
  ]);
});
