import { useMemo } from 'react';
import { plainestIn } from '@periwinkle/core/plates/region-plate';
import type { TokenReach } from '@periwinkle/core/questions/token-reach';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { counted } from '../common/numbers';
import { FieldAtRest } from '../specimen/field-at-rest';
import { PreviewSurface } from '../specimen/preview-surface';

const SHOWN = 6;

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
  reach: TokenReach;
}) {
  const shown = useMemo(
    () =>
      reach.components
        .flatMap(({ component, rules, where }) =>
          rules.flatMap(rule => {
            const { extents } = component.space;
            const plainest = plainestIn(component, extents.and(where, extents.of(rule.region)));
            return plainest ? [{ component, rule: rule.id, wants: component.space.written(plainest) }] : [];
          }),
        )
        .slice(0, SHOWN),
    [reach],
  );
  return (
    <section className="reach-strip" aria-label="What it reaches">
      <code>{token}</code>{' '}
      <span className="said">
        {reach.rules === 0
          ? 'reaches no field: nothing refers to it.'
          : `reaches ${counted(reach.components.length, 'field')}, ${counted(reach.rules, 'rule')}, ${counted(reach.combinations, 'combination')}`}
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
