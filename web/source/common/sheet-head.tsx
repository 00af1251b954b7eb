import type { ReactNode } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import { useStore } from '../data/system-context';
import { Sheets } from './sheets';

/** The head of a component's sheet: what it is called, where it belongs, its sheets. */
export function SheetHead({ component, children }: { component: Component; children?: ReactNode }) {
  const { id } = useStore();
  return (
    <div className="head">
      <h1>{component.title}</h1>
      <span className="said crumb">{component.group.join(', ')}</span>
      <Sheets system={id} component={component.id} />
      {children}
    </div>
  );
}
