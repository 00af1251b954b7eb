import type { Part } from './part';
import type { PartDocument } from '../../documents/component-document';
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
  const parts: Part[] = [];
  const byName = new Map<string, Part>();
  const lost = new Set<string>();
  const take = (part: Part, around: string | null): void => {
    parts.push(part);
    byName.set(part.name, part);
    if (part.nested !== null && part.nested !== around) byName.set(part.nested, part);
    part.children.forEach(child => take(child, part.nested));
  };
  const embed = (node: PartDocument, pointer: string): Part | null => {
    if (node.component === undefined)
      problems.error(
        pointer,
        'missing-key',
        `“${node.part}” uses a component; “component” says which.`,
        undefined,
        'component',
      );
    if ((node.children ?? []).length > 0)
      problems.error(
        `${pointer}/children`,
        'leaf-with-children',
        'What a component holds is its own; put parts beside it.',
      );
    const root = nested(node.part);
    if (!root) {
      lost.add(node.part);
      return null;
    }
    if (byName.has(node.part))
      problems.error(`${pointer}/part`, 'duplicate-id', `There is a part “${node.part}” already.`);
    take(root, null);
    return root;
  };
  const read = (node: PartDocument, pointer: string, outer: PartKind | null): Part => {
    const embedded = node.kind === 'use' ? embed(node, pointer) : null;
    if (embedded) return embedded;
    const plain = readKind(node, pointer, problems);
    const kind = outer ? kindWithin(plain, outer) : plain;
    const place = parts.length;
    parts.push(undefined as unknown as Part);
    const children = (node.children ?? []).map((child, index) =>
      read(child, `${pointer}/children/${index}`, kind),
    );
    if (!kind.box && children.length > 0) {
      problems.error(
        `${pointer}/children`,
        'leaf-with-children',
        `A ${kind.kind} holds no parts; put them beside it.`,
      );
    }
    const elements = readElements(node, kind, pointer, problems);
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
    parts[place] = part;
    if (byName.has(node.part)) {
      problems.error(`${pointer}/part`, 'duplicate-id', `There is a part “${node.part}” already.`);
    } else {
      byName.set(node.part, part);
    }
    return part;
  };
  const root = read(document, '/anatomy', null);
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
