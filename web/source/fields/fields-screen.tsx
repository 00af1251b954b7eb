import { useState } from 'react';
import { Link } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { componentNamed, type System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { NameFilter } from '../common/name-filter';
import { counted, countText } from '../common/numbers';
import { useCarried, useContexts } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';
import { useAnswer } from '../engine/use-answer';
import { FieldAtRest } from '../specimen/field-at-rest';
import { PreviewSurface } from '../specimen/preview-surface';

const EVERYTHING = {};
/** Nobody reads findings while typing. */
const REST_MS = 200;

/** The contents page: components by group, in the reader's order. */
export function FieldsScreen() {
  const system = useSystemPart('system');
  const contexts = useContexts(system.tokens);
  const [text, setText] = useState('');
  const { value: findings } = useAnswer('findings', EVERYTHING, system.documents, REST_MS);
  const wanted = text.trim().toLowerCase();
  const shown = system.components.filter(each =>
    `${each.title} ${each.summary} ${each.group.join(' ')}`.toLowerCase().includes(wanted),
  );
  const contextCount = system.tokens.contextCount();
  const combinations =
    system.components.reduce((sum, component) => sum + component.space.count(), 0n) * BigInt(contextCount);
  return (
    <>
      <div className="head">
        <h1>Fields</h1>
        <span className="said crumb">
          {counted(system.components.length, 'field')}, {counted(combinations, 'combination')} in{' '}
          {counted(contextCount, 'context')}
        </span>
      </div>
      <NameFilter text={text} onType={setText} />
      <div className={groupsOf(shown).length < 2 ? 'contents one' : 'contents'}>
        {groupsOf(shown).map(([group, components]) => (
          <section key={group}>
            <h2>{group}</h2>
            {components.map(component => (
              <Line
                key={component.id}
                system={system}
                component={component}
                contexts={contexts}
                findings={findings?.get(system.fileOf.get(component.id) ?? '') ?? (findings ? 0 : null)}
              />
            ))}
          </section>
        ))}
        {shown.length === 0 ? (
          <p className="said">{wanted ? 'No field is called that.' : 'No fields yet.'}</p>
        ) : null}
      </div>
    </>
  );
}

interface LineProps {
  readonly system: System;
  readonly component: Component;
  readonly contexts: ContextInput;
  /** `null` while they are looked for. */
  readonly findings: number | null;
}

function Line({ system, component, contexts, findings }: LineProps) {
  const { id } = useStore();
  const carried = useCarried();
  const base = component.derivation && componentNamed(system, component.derivation.own.extends);
  return (
    <div className="line">
      <div className="what">
        <Link to={`/${id}/${component.id}${carried}`}>{component.title}</Link>
        <p>
          {component.summary}
          {base ? <i> Derived from {base.title}.</i> : null}
        </p>
      </div>
      <PreviewSurface system={system} contexts={contexts} className="ground">
        <FieldAtRest system={system} component={component} wants={component.situations[0]?.when} />
      </PreviewSurface>
      <div className="counts">
        {countText(component.space.count())}
        <br />
        {findings === null ? (
          <span aria-busy="true">…</span>
        ) : findings === 0 ? (
          <span className="holds">holds</span>
        ) : (
          <span className="fails">{counted(findings, 'finding')}</span>
        )}
      </div>
    </div>
  );
}

/** Components by the first level of their group, in order of first appearance. */
function groupsOf(components: readonly Component[]): [string, Component[]][] {
  const groups = new Map<string, Component[]>();
  for (const component of components) {
    const group = component.group.join(', ') || 'Fields';
    groups.set(group, [...(groups.get(group) ?? []), component]);
  }
  return [...groups];
}
