import { useMemo } from 'react';
import type { TokenReach } from '@periwinkle/core/questions/token-reach';
import type { Component } from '@periwinkle/core/rules/component';
import type { System } from '@periwinkle/core/rules/system';
import { bits, type Box } from '@periwinkle/core/space/box';
import type { Combination } from '@periwinkle/core/space/space';
import type { ContextInput } from '@periwinkle/core/tokens/resolver';
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
        .flatMap(({ component, rules }) =>
          rules.map(rule => ({
            component,
            rule: rule.id,
            wants: plainestIn(component.space.allowed(rule.region), component),
          })),
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

/** The combination among some boxes that departs least from rest and defaults. */
function plainestIn(boxes: readonly Box[], component: Component): Combination {
  const { axes } = component.space;
  const atRest = (box: Box): number => box.filter((mask, index) => (mask >> axes[index]!.rest) & 1).length;
  const [plainest] = [...boxes].sort((a, b) => atRest(b) - atRest(a));
  if (!plainest) return {};
  return component.space.written(
    plainest.map((mask, index) => ((mask >> axes[index]!.rest) & 1 ? axes[index]!.rest : bits(mask)[0]!)),
  );
}
