import { namesOf } from '@periwinkle/core/render/names';
import { useMemo } from 'react';
import { keyboardOf } from '@periwinkle/core/behaviour/keyboard';
import { numberedAnatomy, usedTokens } from '@periwinkle/core/output/guide/guide-entries';
import {
  arrangementOf,
  plateGrid,
  sampleNamed,
  type Arrangement,
} from '@periwinkle/core/cascade/plates/plate-grid';
import type { Component } from '@periwinkle/core/components/component';
import { settable } from '@periwinkle/core/components/parameters';
import type { System } from '@periwinkle/core/components/system';
import { parameterProperty } from '@periwinkle/core/output/tokens/token-names';
import { printValue } from '@periwinkle/core/css/print-value';
import { typedToken } from '@periwinkle/core/css/typed-value';
import { propertyNamed } from '@periwinkle/core/css/property-registry';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { countText } from '../common/numbers';
import { ValueMark } from '../component/value-mark';
import { FieldAtRest } from '../specimen/field-at-rest';
import { PreviewSurface } from '../specimen/preview-surface';
import { Specimen, useShape } from '../specimen/specimen';
import { LiveExample } from './live-example';
import { Markdown } from './markdown';

/** A page of the book: generated, with the author's words in their places. */
export function GuidePage({
  system,
  component,
  contexts,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
}) {
  const words = component.document.guide ?? {};
  const page = system.documents.get(`guide/${component.id}.md`);
  return (
    <>
      <article>
        <h1>{component.title}</h1>
        <Markdown
          className="lead"
          text={typeof page === 'string' ? page : (words['use'] ?? component.summary)}
        />
        <GuidePlate system={system} component={component} contexts={contexts} />
        <Anatomy component={component} />
        <Options system={system} component={component} />
        <Situations system={system} component={component} contexts={contexts} />
        <Keyboard component={component} />
        {words['avoid'] ? (
          <>
            <h2>When not to</h2>
            <Markdown text={words['avoid']} />
          </>
        ) : null}
        <Settable system={system} component={component} />
        <TokensUsed system={system} component={component} contexts={contexts} />
      </article>
      <aside>
        <LiveExample system={system} component={component} contexts={contexts} />
      </aside>
    </>
  );
}

/** The first plate, whole; it scrolls in its frame. */
function GuidePlate({
  system,
  component,
  contexts,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
}) {
  const shape = useShape(system, component);
  const plate = component.plates[0];
  const grid = useMemo(
    () => plateGrid(shape.component, arrangementOf(shape.component, null) satisfies Arrangement),
    [shape],
  );
  const sample = sampleNamed(shape.component, plate?.sample);
  return (
    <figure style={{ margin: 0 }}>
      <PreviewSurface
        system={system}
        contexts={contexts}
        className="plate-frame"
        label={plate?.title ?? 'Plate'}
      >
        <table className="plate-table" aria-label={plate?.title ?? 'Plate'}>
          <thead>
            <tr>
              <td />
              {grid.columns.map(column => (
                <th key={column.key} scope="col">
                  {column.words.join(', ')}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {grid.rows.map((row, index) => (
              <tr key={row.key}>
                <th scope="row">{row.words.join(', ')}</th>
                {grid.cells[index]!.map(cell => (
                  <td key={cell.column}>
                    {cell.never ? (
                      <i>never</i>
                    ) : (
                      <Specimen shape={shape} combination={cell.combination} sample={sample} />
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </PreviewSurface>
      <figcaption className="caption">
        <span>
          <b>Plate 1.</b> {plate?.caption}
        </span>
        <span>{countText(component.space.count())} combinations</span>
      </figcaption>
    </figure>
  );
}

function Anatomy({ component }: { component: Component }) {
  return (
    <>
      <h2>Anatomy</h2>
      <ol className="numbered">
        {numberedAnatomy(component).map(part => (
          <li key={part.number}>
            <span className="number">{part.number}</span>
            <span>
              <b>{part.title}</b>, {part.description}
            </span>
          </li>
        ))}
      </ol>
    </>
  );
}

function Options({ system, component }: { system: System; component: Component }) {
  const names = namesOf(system).component(component.id);
  const options = component.space.axes.filter(axis => axis.kind === 'option');
  if (options.length === 0) return null;
  return (
    <>
      <h2>Options</h2>
      <table>
        <thead>
          <tr>
            <th scope="col">option</th>
            <th scope="col">values</th>
            <th scope="col">what for</th>
          </tr>
        </thead>
        <tbody>
          {options.map(axis => (
            <tr key={axis.id}>
              <td>
                {axis.title}
                <br />
                <code className="said">{names.axis(axis.id)}</code>
              </td>
              <td>
                {axis.values.map((value, index) => (
                  <div key={value.id}>
                    <code>{value.id}</code>
                    {index === axis.rest ? <span className="said"> default</span> : null}
                  </div>
                ))}
              </td>
              <td>
                {axis.description}
                {axis.values.map(value =>
                  value.description ? (
                    <div key={value.id} className="said">
                      {value.title}: {value.description}
                    </div>
                  ) : null,
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Situations({
  system,
  component,
  contexts,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
}) {
  if (component.situations.length === 0) return null;
  return (
    <>
      <h2>When it looks like this, and why</h2>
      {component.situations.map(situation => (
        <div key={situation.id} className="situation">
          <b>{situation.title}</b>
          <PreviewSurface system={system} contexts={contexts} className="ground">
            <FieldAtRest system={system} component={component} wants={situation.when} />
          </PreviewSurface>
          <p>{situation.means}</p>
        </div>
      ))}
    </>
  );
}

/** What keys do with it, as the machine has them. */
function Keyboard({ component }: { component: Component }) {
  const rows = keyboardOf(component);
  if (rows.length === 0) return null;
  return (
    <>
      <h2>Keyboard</h2>
      <table>
        <tbody>
          {rows.map(({ keys, does }) => (
            <tr key={`${keys.join()} ${does}`}>
              <td className="keys">
                {keys.map(key => (
                  <kbd key={key}>{key === ' ' ? 'Space' : key}</kbd>
                ))}
              </td>
              <td>{does}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Settable({ system, component }: { system: System; component: Component }) {
  const parameters = settable(component.parameters);
  if (parameters.length === 0) return null;
  return (
    <>
      <h2>Parameters</h2>
      <table>
        <thead>
          <tr>
            <th scope="col">parameter</th>
            <th scope="col">custom property</th>
            <th scope="col">where it is not set</th>
            <th scope="col">for</th>
          </tr>
        </thead>
        <tbody>
          {parameters.map(({ key, document }) => (
            <tr key={key}>
              <td>{document.title ?? key}</td>
              <td>
                <code>{parameterProperty(system.prefix, component.id, key)}</code>
              </td>
              <td>
                <code>{document.default}</code>
              </td>
              <td className="said">{document.description}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function TokensUsed({
  system,
  component,
  contexts,
}: {
  system: System;
  component: Component;
  contexts: ContextInput;
}) {
  const used = useMemo(() => usedTokens(system, component), [system, component]);
  const here = system.tokens.in(contexts);
  return (
    <>
      <h2>Tokens</h2>
      <table>
        <thead>
          <tr>
            <th scope="col">token</th>
            <th scope="col">value</th>
            <th scope="col">used for</th>
          </tr>
        </thead>
        <tbody>
          {used.map(({ token, uses }) => {
            const property = propertyNamed(uses[0]!.split('.')[1]!)!;
            const value = printValue(
              typedToken(property, here.byKey.get(token.key) ?? token, system.rootFontSize),
            );
            return (
              <tr key={token.key}>
                <td>
                  <code>{token.path}</code>
                </td>
                <td>
                  <ValueMark value={value} />
                  <code>{value.length > 60 ? `${value.slice(0, 57)}…` : value}</code>
                </td>
                <td className="said">{uses.join(', ')}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
