import type { System } from '../components/system';
import type { Documents } from '../documents/document-kinds';
import { isObject, pointerSteps } from '../json/json';
import type { LocalProblem, Problem } from '../json/problem';

/** Names that a document holds or means to hold, whether or not they can be read; `null`: nobody can tell which. */
type KnownNames = ReadonlySet<string> | null;

/** Which list a missing name would stand in, by the code of the problem that misses it. */
const LISTS: Readonly<Record<string, { key: string; names: (list: unknown) => KnownNames }>> = {
  'unknown-axis': { key: 'axes', names: list => idsOf(list) },
  'unknown-value': { key: 'axes', names: valuesOf },
  'unknown-part': { key: 'anatomy', names: node => partsOf(node) },
  'unused-content': { key: 'anatomy', names: node => shownIn(node) },
  'unknown-sample': { key: 'samples', names: list => idsOf(list) },
  'unknown-rule': { key: 'rules', names: list => idsOf(list) },
};

function idsOf(list: unknown): KnownNames {
  if (!Array.isArray(list)) return null;
  const entries = list.map(entry => (isObject(entry) ? entry['id'] : undefined));
  return entries.every(id => typeof id === 'string') ? new Set(entries) : null;
}

function valuesOf(list: unknown): KnownNames {
  if (!Array.isArray(list)) return null;
  const values = list.flatMap(axis =>
    isObject(axis) && axis['values'] !== undefined ? [idsOf(axis['values'])] : [],
  );
  if (values.some(ids => ids === null)) return null;
  return new Set(values.flatMap(ids => [...ids!]));
}

const partsOf = (node: unknown): KnownNames => inTree(node, part => [String(part['part'])]);

/** Keys of content that parts of a tree show. */
const shownIn = (node: unknown): KnownNames =>
  inTree(node, ({ content, repeat }) =>
    [...(isObject(content) ? Object.values(content) : [content]), repeat].filter(
      key => typeof key === 'string',
    ),
  );

function inTree(
  node: unknown,
  namesIn: (part: Readonly<Record<string, unknown>>) => readonly string[],
): KnownNames {
  const names = new Set<string>();
  let lost = false;
  const visit = (part: unknown): void => {
    if (!isObject(part) || typeof part['part'] !== 'string') {
      lost = true;
      return;
    }
    namesIn(part).forEach(name => names.add(name));
    const { children } = part;
    if (Array.isArray(children)) children.forEach(visit);
    else if (children !== undefined) lost = true;
  };
  visit(node);
  return lost ? null : names;
}

/** What is told of things on which nothing depends, or that are not there. */
const IDLE: ReadonlySet<string> = new Set(['idle-rule', 'idle-axis', 'idle-transition', 'no-label']);

/**
 * Leaves out the problems of a document that only follow from others of it: a rule that names an axis which is there but
 * cannot be read, or whose name is misspelt where it is declared; a key that is missing because it is misspelt.
 */
export function withoutConsequences(document: unknown, problems: readonly LocalProblem[]): LocalProblem[] {
  if (!isObject(document)) return [...problems];
  const misspelt = problems.filter(problem => problem.code === 'unknown-key');
  /** The list under its own name, or under a misspelt one. */
  const listsOf = (key: string): unknown[] =>
    [
      key,
      ...misspelt.filter(each => each.suggestion === key).map(each => pointerSteps(each.pointer)?.[0] ?? ''),
    ]
      .filter(name => Object.hasOwn(document, name))
      .map(name => document[name]);
  const meant = new Set(
    problems.filter(problem => problem.code === 'unknown-state').map(problem => problem.suggestion),
  );
  const known = new Map<string, readonly KnownNames[]>();
  const namesOf = (code: string): readonly KnownNames[] => {
    const row = LISTS[code];
    const names = known.get(code) ?? (row ? listsOf(row.key).map(row.names) : []);
    known.set(code, names);
    return names;
  };
  const below = new Map<string, LocalProblem[]>();
  for (const problem of problems) {
    const parent = parentOf(problem.pointer);
    const siblings = below.get(parent);
    if (siblings) siblings.push(problem);
    else below.set(parent, [problem]);
  }
  const hasErrors = problems.some(({ severity }) => severity === 'error');
  return problems.filter(problem => {
    // What was left out because it is wrong may have been what something depended on.
    if (hasErrors && IDLE.has(problem.code)) return false;
    if (problem.code === 'missing-key') {
      // The key is there, misspelt or wrong, and that has been said.
      return !below
        .get(problem.pointer)
        ?.some(each =>
          each.suggestion === problem.about ? each.code === 'unknown-key' : isNamed(each, problem.about),
        );
    }
    if (problem.about === undefined) return true;
    if (problem.code === 'unknown-axis' && meant.has(problem.about)) return false;
    return !namesOf(problem.code).some(names => names === null || names.has(problem.about!));
  });
}

const isNamed = ({ pointer }: LocalProblem, key: string | undefined): boolean =>
  key !== undefined && pointerSteps(pointer)?.at(-1) === key;

const parentOf = (place: string): string => place.slice(0, Math.max(0, place.lastIndexOf('/')));

/** Problems that can follow from a base that could not be read whole. */
const MISSES_IN_BASE = new Set([
  ...Object.keys(LISTS),
  'unknown-entry',
  'unknown-component',
  'limit-without-values',
  'missing-key',
]);

/** The same for what derived components miss in their bases, and trials in their fields, of which some could not be read whole. */
export function withoutBaseConsequences(
  { components, fileOf }: System,
  problems: readonly Problem[],
  damaged: ReadonlySet<string>,
): readonly Problem[] {
  if (damaged.size === 0) return problems;
  const anyComponent = [...damaged].some(file => file.startsWith('components/'));
  const doubtful = new Set(
    components.flatMap(({ id, derivation }) =>
      derivation?.bases.some(base => damaged.has(base.file)) ? fileOf.get(id)! : [],
    ),
  );
  const isDoubtful = (code: string, file: string): boolean =>
    code === 'unknown-component' || file.startsWith('trials/') ? anyComponent : doubtful.has(file);
  return problems.filter(
    ({ code, file }) => !(MISSES_IN_BASE.has(code) || code === 'no-field') || !isDoubtful(code, file),
  );
}

/** Problems that can follow from a token or a file of tokens that could not be read. */
const MISSES_TOKEN = new Set(['missing-token', 'unknown-token', 'missing-reference', 'missing-type']);

/** Problems of a resolver document after which nobody can tell which tokens there should be. */
const LOSES_TOKENS = new Set([
  'missing-file',
  'missing-reference',
  'missing-key',
  'unknown-key',
  'wrong-type',
  'wrong-shape',
  'reference-cycle',
]);

/** The same for tokens, across all documents: who uses a token that is there but wrong is not to blame. */
export function withoutTokenConsequences(
  problems: readonly Problem[],
  documents: Documents,
  unreadable: ReadonlySet<string>,
): Problem[] {
  const users = (file: string): boolean => file.startsWith('components/') || file.endsWith('.tokens.json');
  const lost =
    !documents.has('system.json') ||
    [...unreadable].some(file => file === 'system.json' || file.startsWith('tokens/')) ||
    problems.some(losesTokens);
  const blameless = problems.filter(
    ({ code, about }) => !(code === 'missing-file' && about !== undefined && unreadable.has(about)),
  );
  if (lost) return blameless.filter(({ code, file }) => !(MISSES_TOKEN.has(code) && users(file)));
  const damaged = treeOf(problems.flatMap(problem => damagedSteps(problem) ?? []));
  return problems.filter(({ code, about, file, pointer }) => {
    if (!MISSES_TOKEN.has(code) || about === undefined) return true;
    const steps = about.split('.');
    const own = file.endsWith('.tokens.json') ? tokenSteps(pointer) : [];
    // A problem at the damaged token itself, or in a damaged group, follows from nothing.
    const differs = steps.findIndex((step, index) => step !== own[index]);
    return differs < 0 || !leadsThrough(damaged, steps, differs);
  });
}

/** Places of tokens and groups, by the steps that lead to them. */
interface Tree {
  readonly below: Map<string, Tree>;
  isPlace: boolean;
}

function treeOf(places: readonly (readonly string[])[]): Tree {
  const root: Tree = { below: new Map(), isPlace: false };
  for (const steps of places) {
    let here = root;
    for (const step of steps) {
      let next = here.below.get(step);
      if (!next) here.below.set(step, (next = { below: new Map(), isPlace: false }));
      here = next;
    }
    here.isPlace = true;
  }
  return root;
}

/** Whether there is a place of a tree on the way of these steps, after the first so many of them. */
function leadsThrough(tree: Tree, steps: readonly string[], after: number): boolean {
  let here: Tree | undefined = tree;
  for (const [index, step] of steps.entries()) {
    here = here.below.get(step);
    if (!here) return false;
    if (here.isPlace && index >= after) return true;
  }
  return false;
}

function losesTokens({ file, pointer, code, severity, suggestion }: Problem): boolean {
  if (severity !== 'error') return false;
  if (file === 'system.json') return pointer === '/resolver' || suggestion === 'resolver';
  if (file.endsWith('.tokens.json')) return pointer === '';
  return file.startsWith('tokens/') && LOSES_TOKENS.has(code);
}

/** Steps to the token or group in which a problem of a token file lies. */
function damagedSteps({ file, pointer, severity }: Problem): [readonly string[]] | null {
  if (!file.endsWith('.tokens.json') || severity !== 'error') return null;
  const steps = tokenSteps(pointer);
  return steps.length > 0 ? [steps] : null;
}

/** Of names with dots, which are wrong, the parts. */
function tokenSteps(place: string): readonly string[] {
  const steps = pointerSteps(place) ?? [];
  const end = steps.findIndex(step => step.startsWith('$') && step !== '$root');
  return (end < 0 ? steps : steps.slice(0, end)).flatMap(step => step.split('.'));
}
