import { applyPatch } from '../patch/patch';
import { demoDocuments } from '../test/demo';
import { newTokenNameProblem, newTokenPatch, tokenLayers } from './new-token';

const documents = demoDocuments();

test('layers are the contexts of a modifier together, and every other file', () => {
  expect(tokenLayers(documents, 'tokens/quayside.resolver.json')).toEqual([
    {
      id: 'theme',
      title: 'by theme',
      files: [
        { context: 'day', file: 'tokens/day.tokens.json' },
        { context: 'night', file: 'tokens/night.tokens.json' },
      ],
    },
    expect.objectContaining({ title: 'by density' }),
    expect.objectContaining({ title: 'field' }),
    expect.objectContaining({ title: 'raw' }),
  ]);
});

test('a token is put among its group, missing groups with it, its type only where no group gives it', () => {
  const day = documents.get('tokens/day.tokens.json');
  const after = (name: string, type: string): Record<string, never> =>
    applyPatch(day, newTokenPatch(day, name, type, '{x}')!).document as Record<string, never>;
  expect(after('color.line.busy', 'color')).toMatchObject({ color: { line: { busy: { $value: '{x}' } } } });
  expect(after('size.field.wide', 'dimension')).toMatchObject({
    size: { field: { wide: { $type: 'dimension', $value: '{x}' } } },
  });
  expect(newTokenPatch(day, 'color.line.over', 'color', '{x}')).toBeNull();
  expect(newTokenPatch(day, 'color.line.over.deep', 'color', '{x}')).toBeNull();
});

test('names that cannot be used say why', () => {
  const taken = (key: string): boolean => key === 'a.b';
  expect(newTokenNameProblem('a.c', taken)).toBeNull();
  for (const name of ['', 'a..b', '$a', 'a.{b}', 'a.__proto__', 'a.b'])
    expect(newTokenNameProblem(name, taken)).toMatch(/\w/);
});
