import { partKind } from '../documents/part-kinds';
import type { AnatomyEditDocument, PartDocument } from '../documents/part-document';
import { pointer } from '../json/json';
import { oneOf, type ProblemList } from '../json/problem';
import { nearest } from '../text/suggestions';
import {
  entriesOf,
  listOf,
  member,
  membersOf,
  objectOf,
  originOf,
  traced,
  type Origin,
  type Traced,
} from './origin';

/** A part that can be moved about, with what is written of it alone. */
interface Node {
  own: Record<string, Traced<unknown>>;
  readonly near: Origin;
  /** As it was, to give back where nothing differs. */
  readonly before: Traced<PartDocument> | null;
  children: Node[];
}

/** What an edit does, by its verb. */
type Verb = 'insert' | 'remove' | 'move' | 'replace' | 'change' | 'wrap';
const VERBS: readonly Verb[] = ['insert', 'remove', 'move', 'replace', 'change', 'wrap'];
const WHERE = ['before', 'after', 'into'] as const;

/** Members of a part that no edit changes: its name, by which others know it, and its children, which have edits of their own. */
const FIXED = ['part', 'children'];

/** An anatomy after some edits, in order; one that cannot be made is reported at its place and left out. */
export function editedAnatomy(
  base: Traced<PartDocument>,
  edits: readonly Traced<AnatomyEditDocument>[],
  problems: ProblemList,
): Traced<PartDocument> {
  if (edits.length === 0) return base;
  const editing = new Editing(readNode(base), problems);
  for (const edit of edits) editing.make(edit);
  return writeNode(editing.root);
}

class Editing {
  constructor(
    readonly root: Node,
    private readonly problems: ProblemList,
  ) {}

  make(edit: Traced<AnatomyEditDocument>): void {
    const verbs = VERBS.filter(verb => edit.value[verb] !== undefined);
    const [verb] = verbs;
    if (verb === undefined || verbs.length > 1) {
      this.report(edit, '', 'wrong-shape', `An edit of the anatomy does one thing: ${oneOf(VERBS)}.`);
      return;
    }
    this[verb](edit);
  }

  private insert(edit: Traced<AnatomyEditDocument>): void {
    const node = this.fresh(member(edit, 'insert')!);
    if (node) this.place(edit, node);
  }

  private remove(edit: Traced<AnatomyEditDocument>): void {
    const found = this.find(edit, 'remove');
    if (found) this.take(edit, 'remove', found);
  }

  private move(edit: Traced<AnatomyEditDocument>): void {
    const found = this.find(edit, 'move');
    const target = this.target(edit);
    if (!found || !target) return;
    if (allOf(found).includes(target.node)) {
      this.report(edit, target.key, 'moved-into-itself', `“${nameOf(found)}” cannot be moved into itself.`);
      return;
    }
    if (this.take(edit, 'move', found)) this.place(edit, found);
  }

  private replace(edit: Traced<AnatomyEditDocument>): void {
    const found = this.find(edit, 'replace');
    const by = member(edit, 'by');
    if (!by)
      this.report(edit, '', 'missing-key', '“by” is missing: the part that comes instead.', undefined, 'by');
    if (!found || !by) return;
    const node = this.fresh(by, allOf(found));
    const outer = this.outerOf(found);
    if (!node) return;
    if (outer) outer.children = outer.children.map(child => (child === found ? node : child));
    else this.report(edit, 'replace', 'fixed-root', 'The outermost part stays; change it, or what is in it.');
  }

  private change(edit: Traced<AnatomyEditDocument>): void {
    const found = this.find(edit, 'change');
    const to = member(edit, 'to');
    if (!to) this.report(edit, '', 'missing-key', '“to” is missing: what is to be changed.', undefined, 'to');
    if (!found || !to) return;
    for (const [key, value] of Object.entries(membersOf(to))) {
      if (FIXED.includes(key))
        this.report(
          edit,
          'to',
          'fixed-member',
          `“${key}” of a part is not changed; replace the part instead.`,
          key,
        );
      else if (value.value === null) delete found.own[key];
      else found.own[key] = joined(found.own[key], value);
    }
  }

  private wrap(edit: Traced<AnatomyEditDocument>): void {
    const names = entriesOf(member(edit, 'wrap'));
    const around = member(edit, 'in');
    if (!around)
      this.report(edit, '', 'missing-key', '“in” is missing: the part around them.', undefined, 'in');
    const found = names.flatMap((name, index) => this.named(name.value, edit, pointer('wrap', index)) ?? []);
    if (!around || names.length === 0 || found.length < names.length) return;
    const outer = this.outerOf(found[0]!);
    if (!outer || found.some(node => this.outerOf(node) !== outer)) {
      this.report(
        edit,
        'wrap',
        'not-beside',
        'Only parts that stand beside one another can be wrapped together.',
      );
      return;
    }
    const box = this.fresh(around);
    if (!box) return;
    if (!isBox(box)) {
      this.report(edit, 'in', 'leaf-with-children', 'What is put around parts must be a row or a stack.');
      return;
    }
    const first = outer.children.find(child => found.includes(child))!;
    box.children.push(...outer.children.filter(child => found.includes(child)));
    outer.children = outer.children.flatMap(child =>
      child === first ? box : found.includes(child) ? [] : child,
    );
  }

  /** Puts a part where an edit says. */
  private place(edit: Traced<AnatomyEditDocument>, node: Node): void {
    const target = this.target(edit);
    if (!target) return;
    if (target.key === 'into') {
      target.node.children.push(node);
      return;
    }
    const outer = this.outerOf(target.node)!;
    const at = outer.children.indexOf(target.node) + (target.key === 'after' ? 1 : 0);
    outer.children.splice(at, 0, node);
  }

  private target(edit: Traced<AnatomyEditDocument>): { key: (typeof WHERE)[number]; node: Node } | null {
    const keys = WHERE.filter(key => edit.value[key] !== undefined);
    const [key] = keys;
    if (key === undefined || keys.length > 1) {
      this.report(edit, '', 'wrong-shape', `This says where by one of ${oneOf(WHERE)}.`);
      return null;
    }
    const node = this.find(edit, key);
    if (!node) return null;
    if (key === 'into' && !isBox(node)) {
      this.report(edit, key, 'leaf-with-children', `“${nameOf(node)}” holds no parts; put it beside it.`);
      return null;
    }
    if (key !== 'into' && node === this.root) {
      this.report(edit, key, 'fixed-root', 'Nothing stands beside the outermost part; put it into it.');
      return null;
    }
    return { key, node };
  }

  private take(edit: Traced<AnatomyEditDocument>, key: string, node: Node): boolean {
    const outer = this.outerOf(node);
    if (!outer) this.report(edit, key, 'fixed-root', 'The outermost part stays where it is.');
    else outer.children = outer.children.filter(child => child !== node);
    return outer !== undefined;
  }

  /** A part that an edit brings; `null` where one of its names is taken by another than those that go. */
  private fresh(part: Traced<PartDocument>, going: readonly Node[] = []): Node | null {
    const node = readNode(part);
    const taken = new Set(allOf(this.root).flatMap(each => (going.includes(each) ? [] : nameOf(each))));
    const double = allOf(node).find(each => taken.has(nameOf(each)));
    if (!double) return node;
    const name = nameOf(double);
    this.problems.error(
      `${double.near.pointer}/part`,
      'duplicate-id',
      `There is a part “${name}” already.`,
      undefined,
      name,
    );
    return null;
  }

  private find(
    edit: Traced<AnatomyEditDocument>,
    key: 'remove' | 'move' | 'replace' | 'change' | (typeof WHERE)[number],
  ) {
    return this.named(edit.value[key]!, edit, pointer(key));
  }

  private named(name: string, edit: Traced<AnatomyEditDocument>, at: string): Node | undefined {
    const all = allOf(this.root);
    const found = all.find(node => nameOf(node) === name);
    if (!found) {
      const names = all.map(nameOf);
      this.problems.error(
        edit.origin.pointer + at,
        'unknown-part',
        `There is no part “${name}” here; there is ${oneOf(names, 12)}.`,
        nearest(name, names),
        name,
      );
    }
    return found;
  }

  private outerOf(node: Node): Node | undefined {
    return allOf(this.root).find(each => each.children.includes(node));
  }

  private report(
    edit: Traced<AnatomyEditDocument>,
    key: string,
    code: string,
    message: string,
    inside?: string,
    about?: string,
  ): void {
    const at =
      edit.origin.pointer + (key === '' ? '' : pointer(key)) + (inside === undefined ? '' : pointer(inside));
    this.problems.error(at, code, message, undefined, about);
  }
}

/** What is made of a member that is there and what an edit says of it: `with` and `content` go by key. */
function joined(before: Traced<unknown> | undefined, after: Traced<unknown>): Traced<unknown> {
  if (!isPlainObject(before?.value) || !isPlainObject(after.value)) return after;
  const all = { ...membersOf(before as Traced<object>), ...membersOf(after as Traced<object>) };
  const kept = Object.entries(all).filter(([, each]) => each.value !== null);
  return objectOf(Object.fromEntries(kept), before!.origin);
}

const isPlainObject = (value: unknown): boolean =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const nameOf = (node: Node): string => node.own['part']!.value as string;
const isBox = (node: Node): boolean => partKind(node.own['kind']!.value as string)?.box ?? false;
const allOf = (node: Node): Node[] => [node, ...node.children.flatMap(allOf)];

function readNode(part: Traced<PartDocument>): Node {
  const { children: _, ...own } = membersOf(part);
  return {
    own,
    near: part.origin,
    before: part,
    children: entriesOf(member(part, 'children')).map(readNode),
  };
}

function writeNode({ own, near, before, children }: Node): Traced<PartDocument> {
  const written = children.map(writeNode);
  const list =
    written.length === 0
      ? undefined
      : listOf(written, before ? member(before, 'children') : undefined, originOf(near, 'children'));
  const whole = objectOf<PartDocument>({ ...own, ...(list ? { children: list } : {}) }, near);
  return before && isSame(before.value, whole.value) ? traced(before.value, whole.origin) : whole;
}

const isSame = (before: PartDocument, after: PartDocument): boolean => {
  const keys = Object.keys(before) as (keyof PartDocument)[];
  return keys.length === Object.keys(after).length && keys.every(key => before[key] === after[key]);
};
