import { demoSystem } from './demo';

const GROUPS = 50;

/** The demo's documents with so many tokens more, in fifty groups, a third of them references; under another id. */
export function withManyTokens(id: string, count: number): Record<string, unknown> {
  const documents = new Map(demoSystem().documents);
  const file = 'tokens/raw.tokens.json';
  const raw = documents.get(file) as { raw: Record<string, unknown> };
  const member = (group: number, index: number): unknown =>
    index % 3 === 2
      ? { $value: `{raw.many.g${group}.t${index - 1}}` }
      : { $value: { value: index, unit: 'px' } };
  const groups = Array.from({ length: GROUPS }, (_, group) => [
    `g${group}`,
    {
      $type: 'dimension',
      ...Object.fromEntries(
        Array.from({ length: count / GROUPS }, (_, index) => [`t${index}`, member(group, index)]),
      ),
    },
  ]);
  documents.set(file, { ...raw, raw: { ...raw.raw, many: Object.fromEntries(groups) } });
  documents.set('system.json', { ...(documents.get('system.json') as object), id });
  return Object.fromEntries(documents);
}
