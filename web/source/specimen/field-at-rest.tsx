import { useMemo } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import { sampleNamed } from '@periwinkle/core/cascade/plates/plate-grid';
import type { System } from '@periwinkle/core/components/system';
import type { Combination } from '@periwinkle/core/space/space';
import { Specimen, useShape } from './specimen';

const AT_REST: Combination = {};

/** One specimen of a component in a combination; unnamed axes at rest. */
export function FieldAtRest({
  system,
  component,
  wants = AT_REST,
  sample,
}: {
  system: System;
  component: Component;
  wants?: Combination;
  sample?: string;
}) {
  const shape = useShape(system, component);
  const combination = useMemo(() => {
    const { space } = shape.component;
    return space.written(space.settled(space.indices(wants)).combination);
  }, [shape, wants]);
  return <Specimen shape={shape} combination={combination} sample={sampleNamed(shape.component, sample)} />;
}
