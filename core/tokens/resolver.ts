import type { Layer } from './contexts';
import { isObject, pointer, valueAt, type Step } from '../json/json';
import { QUOTAS } from '../json/quotas';
import { brief, ProblemList, type Problem } from '../json/problem';
import { nearest } from '../text/suggestions';
import { withinQuota } from './context-quota';
import type { ColorScheme, ContextInput, Modifier } from './contexts';
import { mediaQuery } from './media-query';
import { decoded, fragmentSteps } from './references';
import { mergeTrees, NO_TOKENS, readTree, type DeclaredGroup, type Origin, type Report } from './token-tree';
import type { Documents } from '../documents/document-kinds';

/** The resolver document read: what there is to choose, and the layers in the order in which they are merged. */
export interface ResolverDocument {
  readonly modifiers: readonly Modifier[];
  readonly layers: readonly Layer[];
  readonly problems: readonly Problem[];
}

/**
 * Reads a resolver document (resolver module 2025.10) with the token files it names. Without one, all token files are
 * merged in the order of their names.
 */
export function readResolver(documents: Documents, path: string | undefined): ResolverDocument {
  const problems: Problem[] = [];
  const report: Report = (origin, tell) => {
    const list = new ProblemList();
    tell(list, origin.pointer);
    problems.push(...list.problems.map(problem => ({ file: origin.file, ...problem })));
  };
  if (path === undefined) {
    const layers = [...documents.keys()]
      .filter(file => file.endsWith('.tokens.json'))
      .sort()
      .map(file => ({
        modifier: null,
        trees: new Map([['', readTree(documents.get(file), file, [], report)]]),
      }));
    return { modifiers: [], layers, problems };
  }
  const document = documents.get(path);
  if (!isObject(document)) {
    const suggestion = nearest(
      path,
      [...documents.keys()].filter(file => file.endsWith('.resolver.json')),
    );
    const list = new ProblemList();
    list.error('/resolver', 'missing-file', `There is no resolver document “${path}”.`, suggestion);
    return {
      modifiers: [],
      layers: [],
      problems: list.problems.map(problem => ({ file: 'system.json', ...problem })),
    };
  }
  const reader = new ResolverReader(documents, path, document, report);
  const layers = reader.layers();
  const within = withinQuota({ modifiers: reader.modifiers, layers }, (modifier, message) =>
    report({ file: path, pointer: reader.places.get(modifier)! }, (list, here) =>
      list.error(here, 'too-many', message),
    ),
  );
  return { ...within, problems };
}

class ResolverReader {
  readonly modifiers: Modifier[] = [];
  /** Where each has its contexts, by name. */
  readonly places = new Map<string, string>();
  /** Sets that sources name, by what names them: each is read once, however often it is named. */
  private readonly named = new Map<string, DeclaredGroup>();
  /** How many contexts there are so far. */
  private contexts = 0;

  constructor(
    private readonly documents: Documents,
    private readonly file: string,
    private readonly document: Record<string, unknown>,
    private readonly report: Report,
  ) {}

  layers(): Layer[] {
    const order = this.document['resolutionOrder'];
    if (!Array.isArray(order)) return [];
    return order.flatMap((entry, index) => this.entry(entry, ['resolutionOrder', index]));
  }

  private entry(entry: unknown, at: Step[]): Layer[] {
    if (!isObject(entry)) return [];
    if (typeof entry['$ref'] !== 'string') return this.inline(entry, at);
    const steps = fragmentSteps(entry['$ref']);
    const [kind, name = ''] = steps;
    const table = kind === 'sets' || kind === 'modifiers' ? this.document[kind] : undefined;
    const body = isObject(table) && Object.hasOwn(table, name) ? table[name] : undefined;
    if (steps.length !== 2 || !isObject(body)) {
      const known = ['sets', 'modifiers'].flatMap(part => {
        const names = this.document[part];
        return isObject(names) ? Object.keys(names).map(key => `#/${part}/${key}`) : [];
      });
      this.fail(
        [...at, '$ref'],
        'missing-reference',
        `“${entry['$ref']}” is not in this document.`,
        nearest(entry['$ref'], known),
      );
      return [];
    }
    return kind === 'sets' ? this.set(body, [kind, name]) : this.modifier(name, body, [kind!, name]);
  }

  private inline(entry: Record<string, unknown>, at: Step[]): Layer[] {
    const name = entry['name'];
    if (entry['type'] === 'set') return this.set(entry, at);
    if (entry['type'] === 'modifier' && typeof name === 'string') return this.modifier(name, entry, at);
    this.fail(at, 'wrong-shape', 'An entry is a reference, or has type “set” or “modifier” and a name.');
    return [];
  }

  private set(body: Record<string, unknown>, at: Step[]): Layer[] {
    return [{ modifier: null, trees: new Map([['', this.sources(body['sources'], [...at, 'sources'])]]) }];
  }

  private modifier(name: string, body: Record<string, unknown>, at: Step[]): Layer[] {
    const contexts = isObject(body['contexts']) ? body['contexts'] : {};
    const names = this.withinLimit(Object.keys(contexts), [...at, 'contexts']);
    const preset = body['default'];
    if (preset !== undefined && !(typeof preset === 'string' && names.includes(preset))) {
      this.fail(
        [...at, 'default'],
        'unknown-context',
        `“${brief(preset)}” is no context of ${name}.`,
        nearest(preset, names),
      );
    }
    if (!this.modifiers.some(modifier => modifier.name === name)) {
      const known = typeof preset === 'string' && names.includes(preset) ? preset : null;
      const media = this.media(body, names, at);
      const colorScheme = this.colorScheme(body, names, media, at);
      this.places.set(name, pointer(...at, 'contexts'));
      this.modifiers.push({ name, contexts: names, default: known, media, colorScheme });
    }
    const trees = names.map(
      context => [context, this.sources(contexts[context], [...at, 'contexts', context])] as const,
    );
    return [{ modifier: name, trees: new Map(trees) }];
  }

  /** Contexts as far as there may be so many; those beyond are told and left out. */
  private withinLimit(names: readonly string[], at: Step[]): readonly string[] {
    const room = QUOTAS.contexts - this.contexts;
    this.contexts += names.length;
    if (names.length > room)
      this.fail(
        at,
        'too-many',
        `The modifiers of a system can have ${QUOTAS.contexts} contexts together; with these there are ${this.contexts}.`,
      );
    return names.slice(0, Math.max(0, room));
  }

  /** `$extensions.periwinkle.media`: what the format itself has no place for. */
  private media(body: Record<string, unknown>, contexts: readonly string[], at: Step[]): Map<string, string> {
    const steps = ['$extensions', 'periwinkle', 'media'];
    const queries = valueAt(body, steps);
    const media = new Map<string, string>();
    for (const [context, query] of Object.entries(isObject(queries) ? queries : {})) {
      const here = [...at, ...steps, context];
      const css = typeof query === 'string' ? mediaQuery(query) : null;
      if (!contexts.includes(context)) {
        this.fail(here, 'unknown-context', `“${context}” is no context here.`, nearest(context, contexts));
      } else if (css === null) {
        this.fail(here, 'wrong-value', 'This must be a media query such as “(prefers-color-scheme: dark)”.');
      } else {
        media.set(context, css);
      }
    }
    return media;
  }

  /** `$extensions.periwinkle.colorScheme`, else what the media queries say. */
  private colorScheme(
    body: Record<string, unknown>,
    contexts: readonly string[],
    media: ReadonlyMap<string, string>,
    at: Step[],
  ): Map<string, ColorScheme> {
    const steps = ['$extensions', 'periwinkle', 'colorScheme'];
    const stated = valueAt(body, steps);
    const asked = [...media].flatMap(([context, query]): [string, ColorScheme][] => {
      const match = /prefers-color-scheme:\s*(dark|light)/.exec(query);
      return match ? [[context, match[1] as ColorScheme]] : [];
    });
    const schemes = new Map(asked);
    // Where one context is for dark surroundings only, the others are not.
    const others: ColorScheme | undefined =
      asked.length === 1 ? (asked[0]![1] === 'dark' ? 'light' : 'dark') : undefined;
    if (others) for (const context of contexts) if (!schemes.has(context)) schemes.set(context, others);
    for (const [context, scheme] of Object.entries(isObject(stated) ? stated : {})) {
      const here = [...at, ...steps, context];
      if (!contexts.includes(context))
        this.fail(here, 'unknown-context', `“${context}” is no context here.`, nearest(context, contexts));
      else if (scheme !== 'light' && scheme !== 'dark')
        this.fail(here, 'wrong-value', 'This must be “light” or “dark”.', nearest(scheme, ['light', 'dark']));
      else schemes.set(context, scheme);
    }
    return schemes;
  }

  private sources(list: unknown, at: Step[]): DeclaredGroup {
    if (!Array.isArray(list)) return NO_TOKENS;
    return mergeTrees(list.map((source, index) => this.source(source, [...at, index], [])));
  }

  private source(source: unknown, at: Step[], seen: readonly string[]): DeclaredGroup {
    if (!isObject(source) || typeof source['$ref'] !== 'string')
      return readTree(source, this.file, at, this.report);
    const target = source['$ref'];
    if (target.startsWith('#')) return this.sameDocument(target, at, seen);
    const [name = '', fragment] = target.split('#');
    const path = relativeTo(this.file, decoded(name));
    const body = this.documents.get(path);
    if (body === undefined) {
      const files = [...this.documents.keys()].filter(file => file.endsWith('.tokens.json'));
      const near = nearest(path, files)?.replace(/^.*\//, '');
      this.fail([...at, '$ref'], 'missing-file', `There is no file “${path}”.`, near, path);
      return NO_TOKENS;
    }
    if (fragment === undefined) return readTree(body, path, [], this.report);
    return this.part(body, path, target, fragmentSteps(fragment), at);
  }

  /** A group of a file, or a tree that stands elsewhere in this one. */
  private part(
    body: unknown,
    file: string,
    target: string,
    steps: readonly string[],
    at: Step[],
  ): DeclaredGroup {
    const tree = valueAt(body, steps);
    if (isObject(tree) && !Object.hasOwn(tree, '$value')) return readTree(tree, file, steps, this.report);
    this.fail([...at, '$ref'], 'missing-reference', `“${target}” leads to no group of tokens.`);
    return NO_TOKENS;
  }

  /** A source may name a set of the same document, or a tree that is defined there. */
  private sameDocument(target: string, at: Step[], seen: readonly string[]): DeclaredGroup {
    const known = this.named.get(target);
    if (known) return known;
    if (seen.includes(target)) {
      this.fail(
        [...at, '$ref'],
        'reference-cycle',
        `These sets name each other: ${[...seen, target].join(' → ')}.`,
      );
      return NO_TOKENS;
    }
    const steps = fragmentSteps(target);
    const sets = this.document['sets'];
    const set = steps[0] === 'sets' && isObject(sets) ? sets[steps[1] ?? ''] : undefined;
    const list = isObject(set) ? set['sources'] : undefined;
    if (steps[0] !== 'sets') return this.part(this.document, this.file, target, steps, at);
    if (!Array.isArray(list)) {
      this.fail([...at, '$ref'], 'missing-reference', `“${target}” is no set of this document.`);
      return NO_TOKENS;
    }
    const tree = mergeTrees(
      list.map((source, index) => this.source(source, [...steps, 'sources', index], [...seen, target])),
    );
    this.named.set(target, tree);
    return tree;
  }

  private fail(at: Step[], code: string, message: string, suggestion?: string, about?: string): void {
    const origin: Origin = { file: this.file, pointer: pointer(...at) };
    this.report(origin, (list, here) => list.error(here, code, message, suggestion, about));
  }
}

function relativeTo(file: string, target: string): string {
  const steps = file.split('/').slice(0, -1);
  for (const step of target.split('/')) {
    if (step === '..') steps.pop();
    else if (step !== '.' && step !== '') steps.push(step);
  }
  return steps.join('/');
}

/** All layers of one complete input merged into one tree. */
export function mergedTree(resolver: ResolverDocument, input: ContextInput): DeclaredGroup {
  return mergeTrees(
    resolver.layers.flatMap(
      layer => layer.trees.get(layer.modifier === null ? '' : (input[layer.modifier] ?? '')) ?? [],
    ),
  );
}
