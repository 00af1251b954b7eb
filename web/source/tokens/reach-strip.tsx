import { useMemo } from 'react';
import type { TokenReach } from '@periwinkle/core/questions/token-reach';
import type { Component } from '@periwinkle/core/rules/component';
import type { System } from '@periwinkle/core/rules/system';
import { bits, type Box } from '@periwinkle/core/space/box';
import type { Extent } from '@periwinkle/core/space/extent';
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
        .flatMap(({ component, rules, where }) =>
          rules.flatMap(rule => {
            const shows = component.space.extents.and(where, component.space.extents.of(rule.region));
            const wants = plainestIn(shows, component);
            return wants ? [{ component, rule: rule.id, wants }] : [];
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

/** So many boxes of an extent are looked at for its plainest combination. */
const LOOKED_AT = 200;

/** The combination that departs least from rest and defaults; `null` where there is none. */
function plainestIn(where: Extent, component: Component): Combination | null {
  const { axes, extents } = component.space;
  const atRest = (box: Box): number => box.filter((mask, index) => (mask >> axes[index]!.rest) & 1).length;
  let plainest: Box | null = null;
  let looked = 0;
  for (const box of extents.boxesOf(where)) {
    if (!plainest || atRest(box) > atRest(plainest)) plainest = box;
    if (++looked === LOOKED_AT) break;
  }
  return (
    plainest &&
    component.space.written(
      plainest.map((mask, index) => ((mask >> axes[index]!.rest) & 1 ? axes[index]!.rest : bits(mask)[0]!)),
    )
  );
}
