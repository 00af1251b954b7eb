import type { ComponentType } from 'react';
import { useParams } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { componentNamed } from '@periwinkle/core/components/system';
import { useSystemPart } from '../data/system-context';
import { NoSuchField } from './no-such-field';
import { SheetHead } from '../common/sheet-head';

type Sheet = ComponentType<{ readonly component: Component }>;

/**
 * The screen of a component, from what stands on it: with the head that all of them have, or word of it where there is no such component. `of`: as
 * the system is shown, with what is being tried, or as it is edited.
 */
export function sheetScreen(of: 'system' | 'edited', Sheet: Sheet): ComponentType {
  return function SheetScreen() {
    const { componentId = '' } = useParams();
    const component = componentNamed(useSystemPart(of), componentId);
    if (!component) return <NoSuchField id={componentId} />;
    return (
      <>
        <SheetHead component={component} />
        <Sheet key={component.id} component={component} />
      </>
    );
  };
}
