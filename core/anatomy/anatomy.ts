import type { PartDocument } from '../formats/component-document';
import { oneOf, type ProblemList } from '../formats/problem';
import { nearest } from '../formats/suggest';
import { CONTROL_ELEMENTS, PART_KINDS, partKind, type PartKind } from './part-kinds';

/** A part of a component's anatomy, in the tree. */
export interface Part {
  readonly name: string;
  readonly title: string;
  readonly description: string;
  readonly kind: PartKind;
  /** Key of the sample's content it shows, or `null`. */
  readonly content: string | null;
  /** Element of a control. */
  readonly element: string;
  /** `type` of an input. */
  readonly type: string | null;
  readonly children: readonly Part[];
  /** JSON Pointer of the part in the document. */
  readonly pointer: string;
}

/** The anatomy read: the tree and the same parts in document order. */
export interface Anatomy {
  readonly root: Part;
  readonly parts: readonly Part[];
  readonly byName: ReadonlyMap<string, Part>;
  /** The part around a part; `undefined` for the root. */
  readonly outer: (part: Part) => Part | undefined;
  /** The first control, which labels refer to. */
  readonly control: Part | null;
  /** What bears the states that a browser tells: the control, else the first action. */
  readonly bearer: Part | null;
}

/** Reads the tree of parts; what cannot be read is reported, and stands as a row so that its children still show. */
export function readAnatomy(document: PartDocument, problems: ProblemList): Anatomy {
  const parts: Part[] = [];
  const byName = new Map<string, Part>();
  const read = (node: PartDocument, pointer: string): Part => {
    const kind = readKind(node, pointer, problems);
    const place = parts.length;
    parts.push(undefined as unknown as Part);
    const children = (node.children ?? []).map((child, index) => read(child, `${pointer}/children/${index}`));
    if (!kind.box && children.length > 0) {
      problems.error(
        `${pointer}/children`,
        'leaf-with-children',
        `A ${kind.kind} holds no parts; put them beside it.`,
      );
    }
    const part: Part = {
      name: node.part,
      title: node.title ?? capital(node.part),
      description: node.description ?? '',
      kind,
      content: node.content ?? null,
      element: readElement(node, kind, pointer, problems),
      type: node.type ?? null,
      children: kind.box ? children : [],
      pointer,
    };
    parts[place] = part;
    if (byName.has(node.part)) {
      problems.error(`${pointer}/part`, 'duplicate-id', `There is a part “${node.part}” already.`);
    } else {
      byName.set(node.part, part);
    }
    return part;
  };
  const root = read(document, '/anatomy');
  const control = parts.find(part => part.kind.kind === 'control') ?? null;
  const bearer = control ?? parts.find(part => part.kind.kind === 'action') ?? null;
  const outer = new Map(parts.flatMap(part => part.children.map(child => [child, part] as const)));
  return { root, parts, byName, outer: part => outer.get(part), control, bearer };
}

const capital = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1).replace(/[-_]/g, ' ');

function readKind(node: PartDocument, pointer: string, problems: ProblemList): PartKind {
  const kind = partKind(node.kind);
  if (kind) return kind;
  const names = PART_KINDS.map(row => row.kind);
  if (node.kind === 'use') {
    problems.error(`${pointer}/kind`, 'not-yet', 'Nested components cannot be read yet.');
  } else {
    problems.error(
      `${pointer}/kind`,
      'unknown-kind',
      `“${node.kind}” is no kind of part; there is ${oneOf(names)}.`,
      nearest(node.kind, names),
    );
  }
  return partKind('row')!;
}

function readElement(node: PartDocument, kind: PartKind, pointer: string, problems: ProblemList): string {
  if (kind.kind !== 'control' || node.element === undefined) return kind.element;
  if ((CONTROL_ELEMENTS as readonly string[]).includes(node.element)) return node.element;
  problems.error(
    `${pointer}/element`,
    'unknown-element',
    `A control is ${oneOf(CONTROL_ELEMENTS)}, not “${node.element}”.`,
    nearest(node.element, CONTROL_ELEMENTS),
  );
  return kind.element;
}
