import { memo, useLayoutEffect, useMemo, useRef } from 'react';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { namesOf, type ComponentNames } from '@periwinkle/core/render/names';
import type { SampleDocument } from '@periwinkle/core/documents/component-document';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import type { Combination } from '@periwinkle/core/space/space';
import { buildField } from './build-field';
import { useSpecimenSheets } from './specimen-styles';

/** Everything that decides a specimen's elements, as opposed to how they are styled. Stays the same object while none of it changes. */
export interface Shape {
  readonly component: Component;
  readonly names: ComponentNames;
  readonly icons: ReadonlyMap<string, string>;
}

/** A component's shape. An edit of a rule or a token leaves it as it is, so no specimen is built again for one. */
export function useShape(system: System, component: Component): Shape {
  const { anatomy, space } = component;
  const { samples } = component.document;
  const names = namesOf(system).component(component.id);
  const iconText = [...system.icons].flat().join('\n');
  return useMemo(
    () => ({ component, names, icons: system.icons }),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- rules do not decide, and all but these stay the same objects
    [component.id, anatomy, space, samples, names, iconText],
  );
}

/** Specimens show states as they are, not how they come about. */
const still = new CSSStyleSheet();
still.replaceSync('*, ::before, ::after { transition: none !important; animation: none !important; }');

export interface SpecimenProps {
  readonly shape: Shape;
  readonly combination: Combination;
  readonly sample: SampleDocument | undefined;
  /** What stands in the control while someone writes, instead of the sample's value. */
  readonly written?: string | undefined;
  readonly locale?: string | undefined;
}

/** A field drawn by the held stylesheet in a shadow tree of its own. Nothing in it takes part in the page. */
export const Specimen = memo(function Specimen({
  shape,
  combination,
  sample,
  written,
  locale,
}: SpecimenProps) {
  const host = useRef<HTMLDivElement>(null);
  const sheets = useSpecimenSheets();
  const { component, names, icons } = shape;
  useLayoutEffect(() => {
    const element = host.current!;
    const root = element.shadowRoot ?? element.attachShadow({ mode: 'open' });
    root.adoptedStyleSheets = [sheets.sheetFor(component.id, 'held'), still];
    const tree = fieldTree({
      component,
      names,
      icons,
      sample,
      combination,
      mode: 'held',
      id: 'specimen',
      ...(written === undefined ? {} : { written }),
      ...(locale === undefined ? {} : { locale }),
    });
    root.replaceChildren(buildField(tree));
  }, [sheets, component, names, icons, sample, combination, written, locale]);
  return <div ref={host} className="specimen" inert aria-hidden="true" />;
}, sameSpecimen);

function sameSpecimen(a: SpecimenProps, b: SpecimenProps): boolean {
  return (
    a.shape === b.shape &&
    a.sample === b.sample &&
    a.written === b.written &&
    a.locale === b.locale &&
    sameCombination(a.combination, b.combination)
  );
}

function sameCombination(a: Combination, b: Combination): boolean {
  if (a === b) return true;
  const names = Object.keys(a);
  return names.length === Object.keys(b).length && names.every(name => a[name] === b[name]);
}
