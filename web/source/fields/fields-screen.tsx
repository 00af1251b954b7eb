import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { componentNamed } from '@periwinkle/core/components/system';
import type { Problem } from '@periwinkle/core/json/problem';
import { moveComponent } from '@periwinkle/core/edits/component-edits';
import { NameFilter } from '../common/name-filter';
import { counted } from '../common/numbers';
import { useCarried, useContexts } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';
import { useAnswer } from '../engine/use-answer';
import { ComponentDialogs, useComponentDialogs } from '../making/component-dialogs';
import { useRestructure } from '../making/use-restructure';
import { FieldLine } from './field-line';
import { FindingsDialog } from './findings-dialog';

const EVERYTHING = {};
const NONE: readonly Problem[] = [];
/** Nobody reads findings while typing. */
const REST_MS = 200;

/** The contents page: components by group, in the reader's order. */
export function FieldsScreen() {
  const system = useSystemPart('system');
  const store = useStore();
  const carried = useCarried();
  const contexts = useContexts(system.tokens);
  const [text, setText] = useState('');
  const { value: findings } = useAnswer('findings', EVERYTHING, system.documents, REST_MS);
  const [found, setFound] = useState<string | null>(null);
  const foundIn = found === null ? undefined : componentNamed(system, found);
  const dialogs = useComponentDialogs();
  const restructure = useRestructure();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const wanted = text.trim().toLowerCase();
  const shown = system.components.filter(each =>
    `${each.title} ${each.summary} ${each.group.join(' ')}`.toLowerCase().includes(wanted),
  );
  const groups = groupsOf(shown);
  const inOrder = groups.flatMap(([, components]) => components);
  const contextCount = system.tokens.contextCount();
  const combinations =
    system.components.reduce((sum, component) => sum + component.space.count(), 0n) * BigInt(contextCount);
  /** Puts a component in the place of another, and into its group. */
  const moveTo = (moved: Component, over: Component): void => {
    const [from, to] = [inOrder.indexOf(moved), inOrder.indexOf(over)];
    if (from === to) return;
    const behind = from < to ? over : (inOrder[to - 1] ?? null);
    const reason = restructure(
      moveComponent(moved.id, behind?.id ?? null, over.group.join('/')),
      `${moved.title} moved`,
    );
    if (reason !== null) store.say('error', reason);
  };
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    const [moved, target] = [active.id, over?.id].map(id => inOrder.find(each => each.id === id));
    if (moved && target) moveTo(moved, target);
  };
  return (
    <>
      <div className="head">
        <h1>Fields</h1>
        <span className="said crumb">
          {counted(system.components.length, 'field')}, {counted(combinations, 'combination')} in{' '}
          {counted(contextCount, 'context')}
        </span>
        <span className="beside">
          <Link to={`/${store.id}/lineup${carried}`}>Lineup</Link>
          <Link to={`/${store.id}/icons${carried}`}>Icons</Link>
          <Link to={`/${store.id}/new${carried}`}>New field</Link>
        </span>
      </div>
      <NameFilter text={text} onType={setText} />
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements: announcementsOf(inOrder) }}
        onDragEnd={onDragEnd}
      >
        <SortableContext items={inOrder.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <div className={groups.length < 2 ? 'contents one' : 'contents'}>
            {groups.map(([group, components]) => (
              <section key={group}>
                <h2>{group}</h2>
                {components.map(component => (
                  <FieldLine
                    key={component.id}
                    system={system}
                    component={component}
                    contexts={contexts}
                    findings={
                      findings?.get(system.fileOf.get(component.id) ?? '') ?? (findings ? NONE : null)
                    }
                    onFindings={() => setFound(component.id)}
                    onAct={name => dialogs.show(name, component.id)}
                    onStep={by => {
                      const other = inOrder[inOrder.indexOf(component) + by];
                      if (other) moveTo(component, other);
                    }}
                  />
                ))}
              </section>
            ))}
            {shown.length === 0 ? (
              <p className="said">
                {wanted ? (
                  'No field is called that.'
                ) : (
                  <>
                    No fields yet. <Link to={`/${store.id}/new${carried}`}>Make the first one</Link>.
                  </>
                )}
              </p>
            ) : null}
          </div>
        </SortableContext>
      </DndContext>
      <ComponentDialogs dialogs={dialogs} />
      {foundIn ? (
        <FindingsDialog
          component={foundIn}
          findings={findings?.get(system.fileOf.get(foundIn.id) ?? '') ?? NONE}
          onClose={() => setFound(null)}
        />
      ) : null}
    </>
  );
}

/** What is said of a line being moved to those who do not see it: by titles, not by ids. */
function announcementsOf(lines: readonly Component[]): Announcements {
  const title = (line: { readonly id: UniqueIdentifier } | null): string | undefined =>
    lines.find(({ id }) => id === line?.id)?.title;
  return {
    onDragStart: ({ active }) => `${title(active)} was taken up`,
    onDragOver: ({ active, over }) =>
      !over || over.id === active.id
        ? `${title(active)} is where it was`
        : `${title(active)} is in the place of ${title(over)}`,
    onDragEnd: ({ active, over }) =>
      !over || over.id === active.id
        ? `${title(active)} was put back`
        : `${title(active)} was put in the place of ${title(over)}`,
    onDragCancel: ({ active }) => `${title(active)} was put back`,
  };
}

/** Components by their group, in order of first appearance. */
function groupsOf(components: readonly Component[]): [string, Component[]][] {
  const groups = new Map<string, Component[]>();
  for (const component of components) {
    const group = component.group.join(', ') || 'Fields';
    groups.set(group, [...(groups.get(group) ?? []), component]);
  }
  return [...groups];
}
