import type { ReachReport } from '../engine/reach-report';
import { componentNamed, type System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { counted } from '../common/numbers';
import { FieldAtRest } from '../specimen/field-at-rest';
import { PreviewSurface } from '../specimen/preview-surface';

/** What a token reaches, in numbers, and a few of the specimens it touches. */
export function ReachStrip({
  system,
  contexts,
  token,
  reach,
}: {
  system: System;
  contexts: ContextInput;
  token: string;
  reach: ReachReport;
}) {
  const shown = reach.shown.flatMap(({ component: id, rule, wants }) => {
    const component = componentNamed(system, id);
    return component ? [{ component, rule, wants }] : [];
  });
  return (
    <section className="reach-strip" aria-label="What it reaches">
      <code>{token}</code>{' '}
      <span className="said">
        {reach.rules === 0
          ? 'reaches no field: nothing refers to it.'
          : `reaches ${counted(reach.fields, 'field')}, ${counted(reach.rules, 'rule')}, ${counted(reach.combinations, 'combination')}`}
      </span>
      {shown.length > 0 ? (
        <PreviewSurface system={system} contexts={contexts} className="ground specimens">
          {shown.map(({ component, rule, wants }) => (
            <FieldAtRest
              key={`${component.id}.${rule}`}
              system={system}
              component={component}
              wants={wants}
            />
          ))}
        </PreviewSurface>
      ) : null}
    </section>
  );
}
