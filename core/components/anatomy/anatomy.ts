import type { Part } from './part';
import type { PartDocument } from '../../documents/part-document';
import { oneOf, type ProblemList } from '../../json/problem';
import { nearest } from '../../text/suggestions';

import { pseudoPartsOf } from './pseudo-parts';
import {
  CONTROL_ELEMENTS,
  kindWithin,
  PART_KINDS,
  partKind,
  type PartKind,
} from '../../documents/part-kinds';

/** The anatomy read: the tree and the same parts in document order. */
export interface Anatomy {
  readonly root: Part;
  readonly parts: readonly Part[];
  /** All that rules can speak of: the parts, each with what browsers draw in it. */
  readonly everyPart: readonly Part[];
  /** The root of a nested component also under the name of the part that uses it. */
  readonly byName: ReadonlyMap<string, Part>;
  /** Parts that use components which are not there. */
  readonly lost: ReadonlySet<string>;
  /** The part around a part; `undefined` for the root. */
  readonly outer: (part: Part) => Part | undefined;
  /** The first control, else the first of a nested component: labels refer to it. */
  readonly control: Part | null;
  /** What bears the states that a browser tells: the control, else the first action. */
  readonly bearer: Part | null;
}

/**
 * Reads the tree of parts; what cannot be read is reported, and stands as a row so that its children still show. `nested` gives
 * the tree that stands for a part that uses another component; `null` where that component is not there, which is told elsewhere.
 */
export function readAnatomy(
  document: PartDocument,
  problems: ProblemList,
  nested: (part: string) => Part | null = () => null,
): Anatomy {
  const reader = new AnatomyReader(problems, nested);
  const root = reader.read(document, '/anatomy', null);
  const { parts, byName, lost } = reader;
  const first = (kind: string): Part | undefined =>
    parts.find(part => part.kind.kind === kind && part.nested === null) ??
    parts.find(part => part.kind.kind === kind);
  const control = first('control') ?? null;
  const bearer = control ?? first('action') ?? null;
  const outer = new Map(parts.flatMap(part => part.children.map(child => [child, part] as const)));
  const everyPart = parts.flatMap(part => {
    const drawn = pseudoPartsOf(part);
    for (const each of drawn) {
      byName.set(each.name, each);
      outer.set(each, part);
    }
    return [part, ...drawn];
  });
  return { root, parts, everyPart, byName, lost, outer: part => outer.get(part), control, bearer };
}

/** Collects the parts of a tree as it is read, in reading order. */
class AnatomyReader {
  readonly parts: Part[] = [];
  readonly byName = new Map<string, Part>();
  /** Parts whose component is not there. */
  readonly lost = new Set<string>();

  constructor(
    private readonly problems: ProblemList,
    private readonly nested: (part: string) => Part | null,
  ) {}

  read(node: PartDocument, pointer: string, outer: PartKind | null): Part {
    const embedded = node.kind === 'use' ? this.embed(node, pointer) : null;
    if (embedded) return embedded;
    const plain = readKind(node, pointer, this.problems);
    const kind = outer ? kindWithin(plain, outer) : plain;
    const place = this.parts.length;
    this.parts.push(undefined as unknown as Part);
    const children = (node.children ?? []).map((child, index) =>
      this.read(child, `${pointer}/children/${index}`, kind),
    );
    if (!kind.box && children.length > 0)
      this.refuseChildren(pointer, `A ${kind.kind} holds no parts; put them beside it.`);
    const elements = readElements(node, kind, pointer, this.problems);
    const part: Part = {
      name: node.part,
      title: node.title ?? capital(node.part),
      description: node.description ?? '',
      kind,
      content: typeof node.content === 'string' ? node.content : null,
      element: elements[0]!,
      elements,
      type: node.type ?? null,
      children: kind.box ? children : [],
      pointer,
      nested: null,
      pseudo: null,
    };
    this.parts[place] = part;
    if (this.isNew(node, pointer)) this.byName.set(node.part, part);
    return part;
  }

  /** The tree of another component in the place of the part that uses it. */
  private embed(node: PartDocument, pointer: string): Part | null {
    if (node.component === undefined)
      this.problems.error(
        pointer,
        'missing-key',
        `“${node.part}” uses a component; “component” says which.`,
        undefined,
        'component',
      );
    if ((node.children ?? []).length > 0)
      this.refuseChildren(pointer, 'What a component holds is its own; put parts beside it.');
    const root = this.nested(node.part);
    if (!root) {
      this.lost.add(node.part);
      return null;
    }
    this.isNew(node, pointer);
    this.take(root, null);
    return root;
  }

  private take(part: Part, around: string | null): void {
    this.parts.push(part);
    this.byName.set(part.name, part);
    if (part.nested !== null && part.nested !== around) this.byName.set(part.nested, part);
    part.children.forEach(child => this.take(child, part.nested));
  }

  private isNew({ part }: PartDocument, pointer: string): boolean {
    if (!this.byName.has(part)) return true;
    this.problems.error(`${pointer}/part`, 'duplicate-id', `There is a part “${part}” already.`);
    return false;
  }

  private refuseChildren(pointer: string, message: string): void {
    this.problems.error(`${pointer}/children`, 'leaf-with-children', message);
  }
}

const capital = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1).replace(/[-_]/g, ' ');

function readKind(node: PartDocument, pointer: string, problems: ProblemList): PartKind {
  const kind = partKind(node.kind);
  if (kind) return kind;
  if (node.kind !== 'use') {
    const names = [...PART_KINDS.map(row => row.kind), 'use'];
    problems.error(
      `${pointer}/kind`,
      'unknown-kind',
      `“${node.kind}” is no kind of part; there is ${oneOf(names)}.`,
      nearest(node.kind, names),
    );
  }
  return partKind('row')!;
}

/** Elements that a part may be, at least one; those of a control where it names some. */
function readElements(
  node: PartDocument,
  kind: PartKind,
  pointer: string,
  problems: ProblemList,
): readonly string[] {
  const { element, elements } = node;
  const written = elements ?? (element === undefined ? [] : [element]);
  if (kind.kind !== 'control' || written.length === 0) return [kind.element];
  if (element !== undefined && elements !== undefined)
    problems.error(
      `${pointer}/element`,
      'said-twice',
      '“elements” says already what the control may be; the first of them is the usual one.',
    );
  const known = written.filter((each, index) => {
    const at = elements === undefined ? `${pointer}/element` : `${pointer}/elements/${index}`;
    const isElement = (CONTROL_ELEMENTS as readonly string[]).includes(each);
    if (!isElement)
      problems.error(
        at,
        'unknown-element',
        `A control is ${oneOf(CONTROL_ELEMENTS)}, not “${each}”.`,
        nearest(each, CONTROL_ELEMENTS),
      );
    else if (written.indexOf(each) < index) problems.error(at, 'duplicate-id', `“${each}” is there already.`);
    return isElement && written.indexOf(each) === index;
  });
  return known.length > 0 ? known : [kind.element];
}
