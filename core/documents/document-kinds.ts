/** The kinds of document a system's folder holds, told apart by where they lie and how they end. */
export type DocumentKind = 'system' | 'tokens' | 'resolver' | 'component' | 'icon' | 'guide' | 'trial';

interface KindRow {
  readonly kind: DocumentKind;
  readonly pattern: RegExp;
  readonly mediaType: string;
  readonly json: boolean;
}

const NAME = '[A-Za-z0-9][A-Za-z0-9._-]*';

/** One row per kind; `mediaType` is what the server sends it as. */
const DOCUMENT_KINDS: readonly KindRow[] = [
  { kind: 'system', pattern: /^system\.json$/, mediaType: 'application/json', json: true },
  {
    kind: 'tokens',
    pattern: new RegExp(`^tokens/${NAME}\\.tokens\\.json$`),
    mediaType: 'application/design-tokens+json',
    json: true,
  },
  {
    kind: 'resolver',
    pattern: new RegExp(`^tokens/${NAME}\\.resolver\\.json$`),
    mediaType: 'application/json',
    json: true,
  },
  {
    kind: 'component',
    pattern: new RegExp(`^components/${NAME}\\.component\\.json$`),
    mediaType: 'application/json',
    json: true,
  },
  {
    kind: 'trial',
    pattern: new RegExp(`^trials/${NAME}\\.trial\\.json$`),
    mediaType: 'application/json',
    json: true,
  },
  { kind: 'icon', pattern: new RegExp(`^icons/${NAME}\\.svg$`), mediaType: 'image/svg+xml', json: false },
  { kind: 'guide', pattern: new RegExp(`^guide/${NAME}\\.md$`), mediaType: 'text/markdown', json: false },
];

/** The row for a document's path inside the system's folder, or `undefined` for a path that is no document of ours. */
export function documentKind(path: string): KindRow | undefined {
  if (path.length > 190) return undefined;
  return DOCUMENT_KINDS.find(row => row.pattern.test(path));
}

/** All documents of a system by path: parsed JSON, or text for icons and guide pages. Never changed in place. */
export type Documents = ReadonlyMap<string, unknown>;

/** The documents of one kind, in the order of their paths. */
export function documentsOf(documents: Documents, kind: DocumentKind): [path: string, document: unknown][] {
  return [...documents]
    .filter(([path]) => documentKind(path)?.kind === kind)
    .sort(([a], [b]) => (a < b ? -1 : 1));
}
