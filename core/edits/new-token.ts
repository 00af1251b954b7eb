import { type Documents, documentsOf } from '../documents/document-kinds';
import { isObject, pointer, type JsonObject } from '../json/json';
import type { PatchOperation } from '../patch/operations';

/** Where a new token can be put: one file for all contexts, or one file per context of a modifier. */
export interface TokenLayer {
  readonly id: string;
  readonly title: string;
  /** Files with the context each is for; `null` where it holds in every context. */
  readonly files: readonly { readonly file: string; readonly context: string | null }[];
}

/** The layers of a system, in the order in which they are merged; files that no resolver names come last. */
export function tokenLayers(documents: Documents, resolverPath: string | undefined): TokenLayer[] {
  const resolver = resolverPath === undefined ? undefined : documents.get(resolverPath);
  const files = documentsOf(documents, 'tokens').map(([path]) => path);
  const byContext: TokenLayer[] = [];
  for (const [name, modifier] of Object.entries(
    isObject(resolver) && isObject(resolver['modifiers']) ? resolver['modifiers'] : {},
  )) {
    const contexts =
      isObject(modifier) && isObject(modifier['contexts']) ? Object.entries(modifier['contexts']) : [];
    const owned = contexts.map(([context, sources]) => ({
      context,
      file: lastFile(sources, resolverPath!, files),
    }));
    if (owned.length === 0 || owned.some(({ file }) => file === null)) continue;
    byContext.push({
      id: name,
      title: `by ${name}`,
      files: owned.map(({ context, file }) => ({ context, file: file! })),
    });
  }
  const taken = new Set(byContext.flatMap(layer => layer.files.map(({ file }) => file)));
  const plain = files
    .filter(file => !taken.has(file))
    .map(file => ({
      id: file,
      title: file.replace(/^tokens\//, '').replace(/\.tokens\.json$/, ''),
      files: [{ file, context: null }],
    }));
  return [...byContext, ...plain];
}

/** The file that has the last word among a context's sources. */
function lastFile(sources: unknown, resolverPath: string, files: readonly string[]): string | null {
  const folder = resolverPath.slice(0, resolverPath.lastIndexOf('/') + 1);
  const named = (Array.isArray(sources) ? sources : []).flatMap(source =>
    isObject(source) && typeof source['$ref'] === 'string'
      ? [folder + source['$ref'].replace(/^\.\//, '')]
      : [],
  );
  return named.findLast(file => files.includes(file)) ?? null;
}

/** What keeps a name from naming a new token; `null` when it can. */
export function newTokenNameProblem(name: string, taken: (key: string) => boolean): string | null {
  const names = name.split('.');
  if (names.some(each => each.trim() === '' || /^\$|[{}]/.test(each))) {
    return 'A name is words joined by dots, such as color.line.over; no word is empty, begins with $ or holds braces.';
  }
  if (names.some(each => ['__proto__', 'constructor', 'prototype'].includes(each)))
    return `“${name}” cannot be used as a name.`;
  if (taken(name)) return `There is a token {${name}} already.`;
  return null;
}

/** The patch that puts a token into a token file, with the groups that are missing; `null` when a token is in the way. */
export function newTokenPatch(
  document: unknown,
  name: string,
  type: string,
  value: unknown,
): PatchOperation[] | null {
  const names = name.split('.');
  let here: unknown = document;
  let inherited: unknown;
  for (const [depth, step] of names.entries()) {
    if (!isObject(here) || Object.hasOwn(here, '$value')) return null;
    inherited = here['$type'] ?? inherited;
    if (Object.hasOwn(here, step)) {
      here = here[step];
      continue;
    }
    const token = { ...(inherited === type ? {} : { $type: type }), $value: value } as JsonObject;
    const added = names
      .slice(depth + 1)
      .reduceRight<JsonObject>((inner, group) => ({ [group]: inner }), token);
    return [{ op: 'add', path: pointer(...names.slice(0, depth + 1)), value: added }];
  }
  return null;
}
