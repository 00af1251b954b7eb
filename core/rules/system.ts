import type { ComponentDocument, SystemDocument } from '../formats/component-document';
import { documentsOf, type Documents } from '../formats/document-kinds';
import { isObject } from '../formats/json';
import { inFile, type Problem } from '../formats/problem';
import { TokenModel } from '../tokens/token-model';
import { compileComponent, type Component } from './component';

/** A design system compiled: tokens in all contexts, components, icons. */
export interface System {
  readonly id: string;
  readonly title: string;
  readonly subtitle: string;
  readonly prefix: string;
  /** CSS px per rem. */
  readonly rootFontSize: number;
  readonly tokens: TokenModel;
  /** In the reader's order. */
  readonly components: readonly Component[];
  /** Path of each component's document. */
  readonly fileOf: ReadonlyMap<string, string>;
  /** SVG text by icon name. */
  readonly icons: ReadonlyMap<string, string>;
  readonly documents: Documents;
}

const DEFAULTS = { id: 'system', title: 'System', prefix: 'ds', rootFontSize: 16 };

/**
 * Compiles a system. Only documents whose structure is sound may be passed (`checks/check-system` sees to it). When
 * `before` is given, its tokens are taken over as long as no token document has changed.
 */
export function compileSystem(documents: Documents, before?: System): System {
  const manifest = documents.get('system.json');
  const system = {
    ...DEFAULTS,
    ...(isObject(manifest) ? (manifest as unknown as SystemDocument) : {}),
  } as SystemDocument & typeof DEFAULTS;
  const components = documentsOf(documents, 'component').map(
    ([file, document]) => [file, compileComponent(document as ComponentDocument)] as const,
  );
  const order = system.order ?? [];
  const rank = (id: string): number => (order.includes(id) ? order.indexOf(id) : order.length);
  return {
    id: system.id,
    title: system.title,
    subtitle: system.subtitle ?? '',
    prefix: system.prefix,
    rootFontSize: system.rootFontSize,
    tokens:
      before && sameTokens(before.documents, documents)
        ? before.tokens
        : new TokenModel(documents, system.resolver, before?.tokens),
    components: components.map(([, component]) => component).sort((a, b) => rank(a.id) - rank(b.id)),
    fileOf: new Map(components.map(([file, component]) => [component.id, file])),
    icons: new Map(documentsOf(documents, 'icon').map(([path, svg]) => [iconName(path), String(svg)])),
    documents,
  };
}

const iconName = (path: string): string => path.replace(/^icons\//, '').replace(/\.svg$/, '');

function sameTokens(before: Documents, after: Documents): boolean {
  const relevant = (documents: Documents): string[] =>
    [...documents.keys()].filter(path => path.startsWith('tokens/') || path === 'system.json');
  const paths = relevant(after);
  return (
    paths.length === relevant(before).length && paths.every(path => before.get(path) === after.get(path))
  );
}

export function componentNamed(system: System, id: string): Component | undefined {
  return system.components.find(component => component.id === id);
}

/** Problems found while compiling the components, each in its file. */
export function compileProblems(system: System): Problem[] {
  return system.components.flatMap(component => inFile(system.fileOf.get(component.id)!, component.problems));
}
