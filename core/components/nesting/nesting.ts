import type { ComponentDocument } from '../../documents/component-document';
import { documentsOf } from '../../documents/document-kinds';
import { QUOTAS } from '../../json/quotas';
import { brief, oneOf, ProblemList, type Problem } from '../../json/problem';
import { nearest } from '../../text/suggestions';
import type { DerivedDocuments } from '../../derivation/derived-documents';
import type { FoundUse } from './nested';
import { usesIn, type Use } from './uses';
import { compileComponent } from '../compile-component';
import type { Component } from '../component';

/** So many levels of components may lie within one. */
const MAX_LEVELS = 8;

/** What a component takes in of those within it, each as often as it is used. */
const COUNTED = ['parts', 'rules', 'parameters', 'axes'] as const;
type Size = Record<(typeof COUNTED)[number], number>;

/** So much may lie in the components within one, and in all those within others: a few levels of several each come to millions. */
const WITHIN_ONE: Size = {
  parts: QUOTAS.partsWithin,
  rules: QUOTAS.rulesWithin,
  parameters: QUOTAS.parametersWithin,
  axes: QUOTAS.axesWithin,
};
const WITHIN_ALL: Size = {
  parts: QUOTAS.partsWithinAll,
  rules: QUOTAS.rulesWithinAll,
  parameters: QUOTAS.parametersWithinAll,
  axes: QUOTAS.axesWithinAll,
};
const NOTHING: Size = { parts: 0, rules: 0, parameters: 0, axes: 0 };

/** Compiles the components of a system, those first that others use. */
export class Nesting {
  /** What is wrong with who uses whom, at places of the documents that are compiled. */
  readonly problems: Problem[] = [];
  private readonly files = new Map<string, string>();
  private readonly done = new Map<string, Component>();
  /** Files on the way from a component to one within it. */
  private readonly open: string[] = [];
  /** By file: how many levels there are, the component itself included. */
  private readonly levels = new Map<string, number>();
  /** What lies in components within others, all together. */
  private readonly within = { ...NOTHING };

  constructor(private readonly derived: DerivedDocuments) {
    for (const [path, document] of documentsOf(derived.documents, 'component')) {
      const { id } = document as ComponentDocument;
      if (!this.files.has(id)) this.files.set(id, path);
    }
  }

  component(file: string): Component {
    let component = this.done.get(file);
    if (!component) {
      this.open.push(file);
      component = this.compiled(file);
      this.open.pop();
      this.done.set(file, component);
    }
    return component;
  }

  private compiled(file: string): Component {
    const document = this.derived.documents.get(file) as ComponentDocument;
    const derivation = this.derived.derivations.get(file) ?? null;
    const uses: FoundUse[] = [];
    let deepest = 0;
    for (const use of usesIn(document.anatomy)) {
      const other = this.fileOf(file, use);
      if (other === null) continue;
      const component = this.component(other);
      const below = this.levels.get(other)!;
      if (below > MAX_LEVELS) {
        const words = `Components lie more than ${MAX_LEVELS} deep within one another here.`;
        this.report(file, use, 'too-deep', words);
        continue;
      }
      uses.push({ use, component });
      deepest = Math.max(deepest, below);
    }
    this.levels.set(file, deepest + 1);
    return compileComponent(document, derivation, this.isTooMuch(file, uses) ? [] : uses);
  }

  /** Whether more would lie in components within one than may: then that is told, and none of it is taken in. */
  private isTooMuch(file: string, uses: readonly FoundUse[]): boolean {
    const within = { ...NOTHING };
    for (const { use, component } of uses) {
      const size = sizeOf(component);
      for (const what of COUNTED) {
        within[what] += size[what];
        const [one, all] = [WITHIN_ONE[what], WITHIN_ALL[what]];
        const isOfOne = within[what] > one;
        if (!isOfOne && this.within[what] + within[what] <= all) continue;
        const where = isOfOne
          ? `${one.toLocaleString('en')} ${what} lie in the components within this one`
          : `${all.toLocaleString('en')} ${what} lie in components within others, in all of this system`;
        this.report(file, use, 'too-many', `With this one, more than ${where}.`);
        return true;
      }
    }
    for (const what of COUNTED) this.within[what] += within[what];
    return false;
  }

  /** The file of the component that is used; `null`, and told, where there is none, or where it would lie within itself. */
  private fileOf(file: string, use: Use): string | null {
    const wanted = use.component;
    if (wanted === '') return null;
    const other = this.files.get(wanted);
    if (other === undefined) {
      const ids = [...this.files.keys()].filter(id => this.files.get(id) !== file);
      this.report(
        file,
        use,
        'unknown-component',
        `There is no component “${brief(wanted)}” to use here; there is ${oneOf(ids, 12)}.`,
        nearest(wanted, ids),
      );
      return null;
    }
    const from = this.open.indexOf(other);
    if (from < 0) return other;
    const way = [...this.open.slice(from), other].map(each => this.idOf(each));
    this.report(file, use, 'use-cycle', `This component would lie within itself: ${way.join(' → ')}.`);
    return null;
  }

  private idOf(file: string): string {
    return (this.derived.documents.get(file) as ComponentDocument).id;
  }

  private report(file: string, use: Use, code: string, message: string, suggestion?: string): void {
    const list = new ProblemList();
    list.error(`${use.pointer}/component`, code, message, suggestion, use.component);
    this.problems.push({ file, ...list.problems[0]! });
  }
}

/** How much a component holds, with all that is nested in it. */
const sizeOf = (component: Component): Size => ({
  parts: component.anatomy.everyPart.length,
  rules: component.rules.length,
  parameters: component.parameters.size,
  axes: axesOf(component),
});

const axesOf = ({ space, nested }: Component): number =>
  nested.reduce((sum, { component }) => sum + axesOf(component), space.axes.length);
