import type { Part } from '@periwinkle/core/components/anatomy/part';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import { partSource, writtenName, type PartSource } from '@periwinkle/core/edits/part-edits';
import { resolve } from '@periwinkle/core/cascade/resolve';
import type { Combination } from '@periwinkle/core/space/space';

/** A part as the list of parts shows it; one that uses another component stands for all of that. */
export interface PartLine {
  readonly name: string;
  readonly part: Part;
  /** How deep it lies. */
  readonly depth: number;
  /** On the picture and in the list; `null` of the outermost part. */
  readonly number: number | null;
  /** Id of the component that it uses. */
  readonly uses: string | null;
  readonly source: PartSource;
  /** Whether it is there in the combination that is shown. */
  readonly isDrawn: boolean;
  /** Name of the part around it; `null` of the outermost. */
  readonly outer: string | null;
  /** Names of the parts beside it, itself among them. */
  readonly siblings: readonly string[];
}

/** The parts of a component in reading order. */
export function partLines(system: System, component: Component, combination: Combination): PartLine[] {
  const { anatomy, nested } = component;
  const context = { tokens: system.tokens.usual(), rootFontSize: system.rootFontSize };
  const { parts } = resolve(component, combination, context);
  const lines: PartLine[] = [];
  const visit = (part: Part, depth: number, isAround: boolean, outer: Part | null): void => {
    const name = writtenName(part);
    const use = nested.find(each => each.name === name);
    const isDrawn = isAround && parts[part.name]?.['present']?.value !== 'false';
    lines.push({
      name,
      part,
      depth,
      number: outer === null ? null : lines.length,
      uses: use?.component.id ?? null,
      source: partSource(component, name),
      isDrawn,
      outer: outer && writtenName(outer),
      siblings: (outer?.children ?? [part]).map(writtenName),
    });
    if (!use) part.children.forEach(child => visit(child, depth + 1, isDrawn, part));
  };
  visit(anatomy.root, 0, true, null);
  return lines;
}
