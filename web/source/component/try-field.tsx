import { useLayoutEffect, useRef, useState } from 'react';
import { fieldTree } from '@periwinkle/core/emit/field-tree';
import { sampleNamed } from '@periwinkle/core/plates/plate-grid';
import type { Component } from '@periwinkle/core/rules/component';
import type { System } from '@periwinkle/core/rules/system';
import type { Combination } from '@periwinkle/core/space/space';
import type { ContextInput } from '@periwinkle/core/tokens/resolver';
import { buildField } from '../specimen/build-field';
import { PreviewSurface } from '../specimen/preview-surface';
import { useShape, type Shape } from '../specimen/specimen';
import { useSpecimenSheets } from '../specimen/specimen-styles';

/**
 * The real thing with the shipped stylesheet: typed into, pointed at, made invalid. States that markup sets are the words
 * below; all others come about by using it. What was typed survives every change.
 */
export function TryField({
  system,
  component,
  contexts,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
}) {
  const shape = useShape(system, component);
  const [states, setStates] = useState<Combination>({});
  const marks = component.space.axes.flatMap(axis =>
    (axis.state?.values ?? [])
      .filter(
        value =>
          value.mark && value.mark.attribute !== 'value' && axis.values.some(each => each.id === value.id),
      )
      .map(value => ({ axis: axis.id, value: value.id, words: value.words })),
  );
  return (
    <div className="try" role="group" aria-label="Try it">
      <div className="states">
        <span className="said">try it</span>
        {marks.map(({ axis, value, words }) => {
          const on = states[axis] === value;
          return (
            <button
              key={`${axis}.${value}`}
              type="button"
              className={on ? 'word' : 'word off'}
              aria-pressed={on}
              onClick={() =>
                setStates(before => {
                  const { [axis]: _, ...rest } = before;
                  return on ? rest : { ...rest, [axis]: value };
                })
              }
            >
              {words}
            </button>
          );
        })}
      </div>
      <PreviewSurface system={system} contexts={contexts} className="ground">
        <LiveField shape={shape} combination={states} sample={component.samples[0]?.id} />
      </PreviewSurface>
    </div>
  );
}

/** A working field in a shadow tree. It is built once; options and states only change attributes. */
export function LiveField({
  shape,
  combination,
  sample,
}: {
  shape: Shape;
  combination: Combination;
  sample: string | undefined;
}) {
  const host = useRef<HTMLDivElement>(null);
  const sheets = useSpecimenSheets();
  const { component, prefix, icons } = shape;
  useLayoutEffect(() => {
    const element = host.current!;
    const root = element.shadowRoot ?? element.attachShadow({ mode: 'open', delegatesFocus: true });
    root.adoptedStyleSheets = [sheets.sheetFor(component.id, 'shipped')];
    const tree = fieldTree({
      component,
      prefix,
      icons,
      sample: sampleNamed(component, sample),
      combination: {
        ...component.space.written(component.space.indices({})),
        content: 'empty',
        ...combination,
      },
      mode: 'shipped',
      id: 'try',
    });
    const fresh = buildField(tree);
    const [before] = root.children;
    if (before instanceof HTMLElement && sameOutline(before, fresh)) takeAttributes(before, fresh);
    else {
      root.replaceChildren(fresh);
      pressInFrame(root);
    }
  }, [sheets, component, prefix, icons, sample, combination]);
  return <div ref={host} />;
}

/** Whether two trees differ in attributes and texts only. */
function sameOutline(a: Element, b: Element): boolean {
  if (a.tagName !== b.tagName || a.children.length !== b.children.length) return false;
  return [...a.children].every((child, index) => sameOutline(child, b.children[index]!));
}

/** Carries attributes and texts over without touching what was typed. */
function takeAttributes(target: Element, source: Element): void {
  for (const { name } of [...target.attributes]) if (!source.hasAttribute(name)) target.removeAttribute(name);
  for (const { name, value } of [...source.attributes]) {
    if (target.getAttribute(name) !== value && name !== 'value') target.setAttribute(name, value);
  }
  if (target.children.length === 0 && target.textContent !== source.textContent)
    target.textContent = source.textContent;
  [...target.children].forEach((child, index) => takeAttributes(child, source.children[index]!));
}

/** A press anywhere in the frame puts the cursor in the control. */
function pressInFrame(root: ShadowRoot): void {
  const control = root.querySelector<HTMLElement>('input, textarea, select');
  control?.parentElement?.addEventListener('mousedown', event => {
    if (event.target === control || (event.target as Element).closest('button')) return;
    event.preventDefault();
    control.focus();
  });
}
