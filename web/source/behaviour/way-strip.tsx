import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { Strip } from './strip';
import { useMoments } from './use-moments';

/** How one gets to a situation: the shortest acts, as a strip. */
export function WayStrip({
  system,
  component,
  contexts,
  acts,
  title,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
  acts: readonly string[];
  title: string;
}) {
  const play = useMoments(system, component, undefined, undefined, acts);
  return (
    <section className="walkthrough getting">
      <h2>
        How does one get to “{title}”?{' '}
        <small>{acts.length === 0 ? 'It begins there.' : 'the shortest acts from rest'}</small>
      </h2>
      {acts.length > 0 ? (
        <Strip
          system={system}
          component={component}
          contexts={contexts}
          title={`the way to ${title}`}
          play={play}
        />
      ) : null}
    </section>
  );
}
