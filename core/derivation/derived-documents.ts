import type { ComponentDocument, DerivedDocument } from '../documents/component-document';
import { documentsOf, type Documents } from '../documents/document-kinds';
import { tooLarge, valuesIn } from '../json/document-size';
import { isObject } from '../json/json';
import { QUOTAS } from '../json/quotas';
import { ObjectMemo } from '../json/object-memo';
import { brief, inFile, oneOf, ProblemList, type LocalProblem, type Problem } from '../json/problem';
import { shared } from '../json/structural-sharing';
import { nearest } from '../text/suggestions';
import type { DerivedRules } from './derive-rules';
import { deriveComponent, type Derived } from './derive-component';
import type { Expansion, SourcePlace } from './expansion';
import { originAt, traced, type Origin, type Traced } from './origin';

/** How often something may be derived from what is itself derived. */
const MAX_CHAIN = 8;

/** A component from which another is derived. */
interface Base {
  readonly id: string;
  readonly file: string;
}

/** How a derived component came about. */
export interface Derivation {
  /** The nearest first. */
  readonly bases: readonly Base[];
  readonly own: DerivedDocument;
  /** The base as it stands for itself. */
  readonly base: ComponentDocument;
  /** Where everything was written that it stands for. */
  readonly origin: Origin;
}

/** Documents in which every component says everything itself. */
export interface DerivedDocuments extends Expansion {
  /** By the derived component's file. */
  readonly derivations: ReadonlyMap<string, Derivation>;
  /** What is wrong with derivations, where it was written. Components of which no base can be found are left out. */
  readonly problems: readonly Problem[];
}

/** The step of an expansion that puts in what components take of others. Other documents stay the same objects. */
export function derivedDocuments(documents: Documents): DerivedDocuments {
  const deriving = new Deriving(documents);
  const expanded = new Map<string, unknown>();
  for (const [path, document] of documents) {
    if (!isDerived(document)) expanded.set(path, document);
    else {
      const result = deriving.component(path);
      if (result) expanded.set(path, result.component.value);
    }
  }
  const { derivations, problems } = deriving;
  return {
    documents: expanded,
    derivations,
    problems,
    origin: ({ file, pointer }: SourcePlace) => {
      const derivation = derivations.get(file);
      if (!derivation) return { file, pointer };
      const found = originAt(derivation.origin, pointer);
      return { file: found.file, pointer: found.pointer };
    },
  };
}

const isDerived = (document: unknown): document is DerivedDocument =>
  isObject(document) && typeof document['extends'] === 'string';

/** What a component stands for, and from what it comes. */
interface Whole {
  readonly component: Traced<ComponentDocument>;
  readonly bases: readonly Base[];
  /** Its rules with those of which nothing is left, where it is derived. */
  readonly rules: DerivedRules | null;
}

/** A component without a base: the same object for the same document, so that what is derived from it is known again. */
const rootOf = (document: ComponentDocument, file: string): Traced<ComponentDocument> =>
  onceIn(
    roots.of([document], () => new Map()),
    file,
    () => traced(document, { file, pointer: '' }),
  );
const roots = new ObjectMemo<Map<string, Traced<ComponentDocument>>>();

interface Made extends Derived {
  readonly derivation: Derivation;
}

/** By file. */
const known = new ObjectMemo<Map<string, Made>>();
/** What a file stood for last, by file: whatever has not changed since stays the same object. */
const latest = new Map<string, ComponentDocument>();
const MAX_LATEST = 500;

/** Made once for a base, with where it comes from, and a document. */
const deriveOnce = (base: Whole, own: DerivedDocument, file: string): Made =>
  onceIn(
    known.of([base.component.value, base.component.origin, own], () => new Map()),
    file,
    () => {
      const { component, rules, problems } = deriveComponent(
        base.component,
        base.rules,
        traced(own, { file, pointer: '' }),
      );
      const value = shared(latest.get(file), component.value) as ComponentDocument;
      if (latest.size >= MAX_LATEST) latest.clear();
      latest.set(file, value);
      const { origin } = component;
      const bases = [{ id: own.extends, file: base.component.origin.file }, ...base.bases];
      return {
        component: traced(value, origin),
        rules,
        problems,
        derivation: { bases, own, base: base.component.value, origin },
      };
    },
  );

/** What is remembered under a file, made where it is not yet. */
function onceIn<Result>(byFile: Map<string, Result>, file: string, make: () => Result): Result {
  let result = byFile.get(file);
  if (!result) byFile.set(file, (result = make()));
  return result;
}

const sizes = new ObjectMemo<{ readonly values: number; readonly problems: readonly LocalProblem[] }>();

/** How many values stand in a component with all that it takes of others, and where they are too many. */
const sizeOf = (component: ComponentDocument) =>
  sizes.of([component], () => ({
    values: valuesIn(component),
    problems: tooLarge('component', component).problems,
  }));

class Deriving {
  readonly derivations = new Map<string, Derivation>();
  readonly problems: Problem[] = [];
  private readonly files = new Map<string, string>();
  private readonly done = new Map<string, Whole | null>();
  /** That derived components take of others. */
  private values = 0;
  /** Files on the way from a component to its bases. */
  private readonly open: string[] = [];

  constructor(private readonly documents: Documents) {
    for (const [path, document] of documentsOf(documents, 'component')) {
      const { id } = document as ComponentDocument;
      if (!this.files.has(id)) this.files.set(id, path);
    }
  }

  /** `null` where there is no base to derive it from; that has been told where it lies. */
  component(path: string): Whole | null {
    let whole = this.done.get(path);
    if (whole === undefined) {
      this.open.push(path);
      whole = this.made(path);
      this.open.pop();
      this.done.set(path, whole);
    }
    return whole;
  }

  private made(path: string): Whole | null {
    const document = this.documents.get(path) as ComponentDocument | DerivedDocument;
    if (!isDerived(document)) {
      return { component: rootOf(document as ComponentDocument, path), bases: [], rules: null };
    }
    const file = this.baseOf(path, document);
    const base = file === null ? null : this.component(file);
    if (!base || file === null) return null;
    if (base.bases.length >= MAX_CHAIN) {
      const first = base.bases.at(-1)!.id;
      this.report(path, 'too-deep', `This is derived more than ${MAX_CHAIN} times over, from ${first} on.`);
      return null;
    }
    if ((document as { anatomy?: unknown }).anatomy !== undefined)
      this.report(
        path,
        'has-base',
        'A derived component has the anatomy of its base; say what differs in “anatomyEdits”.',
        '/anatomy',
      );
    this.values += sizeOf(base.component.value).values;
    if (this.values > QUOTAS.derivedValues) {
      const most = QUOTAS.derivedValues.toLocaleString('en');
      const words = `With this one, derived components take more than ${most} values of others, in all of this system.`;
      this.report(path, 'too-many', words);
      return null;
    }
    const { component, rules, problems, derivation } = deriveOnce(base, document, path);
    const [long] = sizeOf(component.value).problems;
    if (long) {
      const words = `With what it takes of its bases, at ${long.pointer || '/'}: ${long.message}`;
      this.report(path, 'too-many', words);
      return null;
    }
    for (const problem of inFile(path, problems)) this.problems.push(problem);
    this.derivations.set(path, derivation);
    return { component, bases: derivation.bases, rules };
  }

  /** The file of a component's base; `null`, and told, where there is none. */
  private baseOf(path: string, { id, extends: wanted }: DerivedDocument): string | null {
    const file = this.files.get(wanted);
    if (file === undefined) {
      const ids = [...this.files.keys()].filter(each => each !== id);
      this.report(
        path,
        'unknown-component',
        `There is no component “${brief(wanted)}” to derive this from; there is ${oneOf(ids, 12)}.`,
        '/extends',
        nearest(wanted, ids),
        wanted,
      );
      return null;
    }
    const from = this.open.indexOf(file);
    if (from < 0) return file;
    const circle = [...this.open.slice(from), file].map(each => this.idOf(each));
    this.report(
      path,
      'extends-cycle',
      `These components are derived from each other: ${circle.join(' → ')}.`,
    );
    return null;
  }

  private idOf(path: string): string {
    return (this.documents.get(path) as ComponentDocument).id;
  }

  private report(
    file: string,
    code: string,
    message: string,
    pointer = '/extends',
    suggestion?: string,
    about?: string,
  ): void {
    const list = new ProblemList();
    list.error(pointer, code, message, suggestion, about);
    this.problems.push(...inFile(file, list.problems));
  }
}
