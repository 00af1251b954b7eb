import { useLayoutEffect, useRef, useState } from 'react';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { sampleNamed } from '@periwinkle/core/cascade/plates/plate-grid';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import type { Combination } from '@periwinkle/core/space/space';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { useStore } from '../data/system-context';
import { becomeLike } from '../specimen/become-like';
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
  const typed = useStore().typedTexts;
  const { component, names, icons } = shape;
  useLayoutEffect(() => {
    const element = host.current!;
    const root = element.shadowRoot ?? element.attachShadow({ mode: 'open', delegatesFocus: true });
    root.adoptedStyleSheets = [sheets.sheetFor(component.id, 'shipped')];
    const tree = fieldTree({
      component,
      names,
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
    if (before?.tagName === fresh.tagName) becomeLike(before, fresh);
    else root.replaceChildren(fresh);
    const control = controlIn(root);
    const text = typed.get(keyOf(component));
    if (control && text !== undefined && control.value !== text) control.value = text;
  }, [sheets, component, names, icons, sample, combination, typed]);
  return (
    <div
      ref={host}
      className="field-host"
      onInput={() => {
        const control = controlIn(host.current!.shadowRoot!);
        if (control) typed.set(keyOf(component), control.value);
      }}
    />
  );
}

/** What is entered goes under its content key, to be there in the next field that has it. */
const keyOf = ({ anatomy }: Component): string => anatomy.control?.content ?? 'value';

const controlIn = (root: ShadowRoot): HTMLInputElement | HTMLTextAreaElement | null =>
  root.querySelector('input:not([type=checkbox], [type=radio]), textarea');
