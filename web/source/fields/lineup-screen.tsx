import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import {
  lineup,
  MEASURES,
  standingOut,
  usualOf,
  type LinedUp,
  type Measure,
  type StandingOut,
} from '@periwinkle/core/layout/lineup';
import { Choice } from '../common/choice';
import { counted } from '../common/numbers';
import { useNarrow } from '../common/use-narrow';
import { useCarried, useContexts } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';
import { FieldAtRest } from '../specimen/field-at-rest';
import { PreviewSurface } from '../specimen/preview-surface';

/** What each field is given, in px. */
const WIDTH = 200;
/** Side by side, on a wide page and on a narrow one. */
const COLUMNS = { wide: 5, narrow: 4 };

/** What a field is that differs in a measure, by whether it has more or less. */
const DIFFERS: Readonly<Record<Measure, readonly [more: string, less: string]>> = {
  height: ['taller', 'lower'],
  corner: ['rounder', 'sharper'],
  inset: ['further in', 'further out'],
  line: ['heavier in its line', 'lighter in its line'],
};
const RULERS: Readonly<Record<Measure, string>> = {
  height: 'high',
  corner: 'corner',
  inset: 'room before',
  line: 'line',
};

/** All fields side by side in one look, standing on one line, so that whatever differs from its family is seen. */
export function LineupScreen() {
  const system = useSystemPart('system');
  const { id } = useStore();
  const carried = useCarried();
  const contexts = useContexts(system.tokens);
  const [parameters, setParameters] = useSearchParams();
  const columns = useNarrow() ? COLUMNS.narrow : COLUMNS.wide;
  const sizes = useMemo(() => valuesOf(system.components, 'size'), [system.components]);
  const situations = useMemo(() => situationsOf(system.components), [system.components]);
  const size =
    parameters.get('size') ?? (sizes.some(each => each.id === 'medium') ? 'medium' : (sizes[0]?.id ?? null));
  const situation = parameters.get('situation') ?? situations[0]?.id ?? null;
  const fields = useMemo(
    () => lineup(system, { size, situation, contexts, width: WIDTH }),
    [system, size, situation, contexts],
  );
  const out = useMemo(
    () =>
      (sizes.length > 0 ? sizes : [{ id: null, words: '' }]).flatMap(({ id: each, words }) =>
        standingOut(lineup(system, { size: each, situation, contexts, width: WIDTH })).map(found => ({
          ...found,
          at: words,
          size: each,
        })),
      ),
    [system, sizes, situation, contexts],
  );
  const set = (name: string, value: string): void =>
    setParameters(before => {
      const after = new URLSearchParams(before);
      after.set(name, value);
      return after;
    });
  return (
    <>
      <div className="head">
        <h1>Lineup</h1>
        <span className="said crumb">{counted(fields.length, 'field')} on one line</span>
        <span className="beside">
          <Link to={`/${id}${carried}`}>Contents</Link>
        </span>
      </div>
      <div className="strip">
        <span>
          <span className="said">shown at</span>{' '}
          <Choice label="size" value={size} items={sizes} onChoose={value => set('size', value)}>
            {sizes.find(each => each.id === size)?.words ?? 'its size'}
          </Choice>
          {', '}
          <Choice
            label="situation"
            value={situation}
            items={situations}
            onChoose={value => set('situation', value)}
          >
            {situations.find(each => each.id === situation)?.words ?? 'at rest'}
          </Choice>
        </span>
        <Rulers fields={fields} />
      </div>
      <PreviewSurface system={system} contexts={contexts} className="lineup" label="Fields side by side">
        {fields.map((field, index) => (
          <LinedUpField
            key={field.component.id}
            field={field}
            fields={fields}
            row={rowOf(fields, index, columns)}
            isOut={out.some(each => each.component.id === field.component.id && each.size === size)}
          />
        ))}
      </PreviewSurface>
      <section className="standing-out">
        <h2>
          What stands out <small>at any size</small>
        </h2>
        {out.length === 0 ? (
          <p className="said">
            Nothing: at each size most have the same height, corner, room and line, and so have the others.
          </p>
        ) : (
          <ul className="lines">
            {out.map(found => (
              <li key={`${found.component.id} ${found.measure} ${found.at}`}>
                <Link to={`/${id}/${found.component.id}/anatomy${carried}`}>{found.component.title}</Link> is{' '}
                {difference(found)} than the others{found.at ? ` at ${found.at}` : ''}:{' '}
                <span className="mono">
                  {found.px} px, not {found.usual}
                </span>
                .
              </li>
            ))}
          </ul>
        )}
      </section>
    </>
  );
}

/** The fields in one row with another. */
const rowOf = (fields: readonly LinedUp[], index: number, columns: number): readonly LinedUp[] => {
  const first = index - (index % columns);
  return fields.slice(first, first + columns);
};

function difference({ measure, px, usual }: StandingOut): string {
  const by = Math.round(Math.abs(px - usual) * 100) / 100;
  const [more, less] = DIFFERS[measure];
  return `${by} px ${px > usual ? more : less}`;
}

/** The measures that the fields have, each once. */
function Rulers({ fields }: { fields: readonly LinedUp[] }) {
  return (
    <span className="rulers">
      {MEASURES.map(measure => {
        const amounts = [...new Set(fields.flatMap(({ measures }) => measures[measure] ?? []))].toSorted(
          (a, b) => a - b,
        );
        return (
          <span key={measure}>
            <i className="said">{RULERS[measure]}</i>{' '}
            <span className="mono">{amounts.join(', ') || 'none'} px</span>
          </span>
        );
      })}
    </span>
  );
}

function LinedUpField({
  field,
  fields,
  row,
  isOut,
}: {
  field: LinedUp;
  fields: readonly LinedUp[];
  row: readonly LinedUp[];
  isOut: boolean;
}) {
  const system = useSystemPart('system');
  const { id } = useStore();
  const carried = useCarried();
  const { component, combination, frame } = field;
  // The feet of all frames of a row stand on one line.
  const deepest = Math.max(...row.map(each => each.frame.y + each.frame.height));
  const usual = usualOf(fields, 'height');
  const foot = frame.y + frame.height;
  return (
    <figure className={isOut ? 'out' : ''}>
      <div className="standing" style={{ paddingTop: deepest - foot }}>
        <FieldAtRest system={system} component={component} wants={combination} />
        <span className="foot" style={{ top: deepest }} />
        {usual === null ? null : <span className="crest" style={{ top: deepest - usual }} />}
      </div>
      <figcaption>
        <Link to={`/${id}/${component.id}${carried}`}>{component.title}</Link>{' '}
        <span className="mono">{field.measures.height === null ? '' : `${field.measures.height} px`}</span>
      </figcaption>
    </figure>
  );
}

function valuesOf(components: readonly Component[], id: string): { id: string; words: string }[] {
  const found = new Map<string, string>();
  for (const { space } of components)
    for (const value of space.axes.find(axis => axis.id === id)?.values ?? [])
      if (!found.has(value.id)) found.set(value.id, value.words);
  return [...found].map(([value, words]) => ({ id: value, words }));
}

function situationsOf(components: readonly Component[]): { id: string; words: string }[] {
  const found = new Map<string, string>();
  for (const { situations, anatomy } of components)
    if (anatomy.control?.nested === null)
      for (const { id, title } of situations) if (!found.has(id)) found.set(id, title.toLowerCase());
  return [...found].map(([id, words]) => ({ id, words }));
}
