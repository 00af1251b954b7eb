import type { SystemDocument } from '../documents/system-document';
import { documentsOf, type Documents } from '../documents/document-kinds';
import { isObject } from '../json/json';
import type { Problem } from '../json/problem';
import { readReference } from '../tokens/references';
import { TokenModel } from '../tokens/token-model';
import type { Component } from './component';
import { Nesting } from './nesting/nesting';
import { derivedDocuments } from '../derivation/derived-documents';
import { asWritten, type Expansion, type SourcePlace } from '../derivation/expansion';

/** A design system compiled: tokens in all contexts, components, icons. */
export interface System {
  readonly id: string;
  readonly title: string;
  readonly subtitle: string;
  readonly prefix: string;
  /** CSS px per rem. */
  readonly rootFontSize: number;
  readonly tokens: TokenModel;
  /** Keys of the colours of a page behind and between fields; `null` where the system names none. */
  readonly page: { readonly surface: string | null; readonly ink: string | null };
  /** In the reader's order. */
  readonly components: readonly Component[];
  /** Path of each component's document. */
  readonly fileOf: ReadonlyMap<string, string>;
  /** SVG text by icon name. */
  readonly icons: ReadonlyMap<string, string>;
  /** As written, as far as they can be read. */
  readonly documents: Documents;
  /** Leads a place in what was compiled back to where it was written. */
  readonly origin: (place: SourcePlace) => SourcePlace;
  /** What is wrong with how components are made from others, where it was written. */
  readonly expansionProblems: readonly Problem[];
}

const DEFAULTS = { id: 'system', title: 'System', prefix: 'ds', rootFontSize: 16 };

/** So many token models are remembered. */
const MAX_MODELS = 8;

interface KnownModel {
  readonly documents: readonly unknown[];
  readonly paths: readonly string[];
  readonly model: TokenModel;
}
/** The latest first. */
let models: readonly KnownModel[] = [];

/** The tokens of some documents: the same model while no token document changes, else one that takes over what it can. */
function tokenModel(documents: Documents, resolver: string | undefined): TokenModel {
  const paths = [resolver ?? '', ...[...documents.keys()].filter(path => path.startsWith('tokens/')).sort()];
  const bodies = paths.map(path => documents.get(path));
  const isSame = (known: KnownModel): boolean =>
    known.paths.length === paths.length &&
    known.paths.every((path, index) => path === paths[index] && known.documents[index] === bodies[index]);
  let known = models.find(isSame);
  if (!known) {
    const before = models.find(each =>
      each.documents.some((body, index) => index > 0 && bodies.includes(body)),
    );
    known = { paths, documents: bodies, model: new TokenModel(documents, resolver, before?.model) };
  }
  models = [known, ...models.filter(each => each !== known)].slice(0, MAX_MODELS);
  return known.model;
}

/**
 * Compiles a system, from documents as they were written or from an expansion of them. Only documents whose structure is sound
 * may be passed (`sound-documents` sees to it).
 */
export function compileSystem(from: Documents | Expansion): System {
  const read = 'origin' in from ? from : asWritten(from);
  const { documents } = read;
  const derived = derivedDocuments(documents);
  const manifest = documents.get('system.json');
  const system = {
    ...DEFAULTS,
    ...(isObject(manifest) ? (manifest as unknown as SystemDocument) : {}),
  } as SystemDocument & typeof DEFAULTS;
  const nesting = new Nesting(derived);
  const components = firstOfEach(
    documentsOf(derived.documents, 'component').map(([file]) => [file, nesting.component(file)] as const),
  );
  const order = system.order ?? [];
  const rank = (id: string): number => (order.includes(id) ? order.indexOf(id) : order.length);
  return {
    id: system.id,
    title: system.title,
    subtitle: system.subtitle ?? '',
    prefix: system.prefix,
    rootFontSize: system.rootFontSize,
    tokens: tokenModel(documents, system.resolver),
    components: components.map(([, component]) => component).sort((a, b) => rank(a.id) - rank(b.id)),
    fileOf: new Map(components.map(([file, component]) => [component.id, file])),
    page: { surface: aliasKey(system.page?.surface), ink: aliasKey(system.page?.ink) },
    icons: new Map(documentsOf(documents, 'icon').map(([path, svg]) => [iconName(path), String(svg)])),
    documents,
    origin: place => read.origin(derived.origin(place)),
    expansionProblems: [
      ...derived.problems,
      ...nesting.problems.map(problem => ({ ...problem, ...derived.origin(problem) })),
    ].map(problem => ({ ...problem, ...read.origin(problem) })),
  };
}

/** Of several components with one id, which is told, the first: nothing could be said of the others. */
function firstOfEach(
  all: readonly (readonly [string, Component])[],
): readonly (readonly [string, Component])[] {
  const ids = new Set<string>();
  return all.filter(([, { id }]) => ids.size < ids.add(id).size);
}

function aliasKey(text: string | undefined): string | null {
  const reference = readReference(text);
  return reference?.kind === 'alias' ? reference.key : null;
}

const iconName = (path: string): string => path.replace(/^icons\//, '').replace(/\.svg$/, '');

export function componentNamed(system: System, id: string): Component | undefined {
  return system.components.find(component => component.id === id);
}
