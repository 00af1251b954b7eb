import { scaleLinear } from 'd3-scale';
import { useMemo, useState, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import type { Pair, PairOfAxes } from '@periwinkle/core/cascade/questions/space-report';
import { allowTogether } from '@periwinkle/core/edits/limit-edits';
import type { Box } from '@periwinkle/core/space/box';
import { regionAddress } from '../component/region-address';
import { useOpened } from '../data/opened-address';
import { useStore } from '../data/system-context';
import { ConsideredAct } from '../making/considered-act';

/** Room in px: for the picture beside lists, for names at its left and below it, between axes. */
const [WIDTH, LEFT, BELOW, GAP] = [470, 112, 86, 7];
/** The sides of a cell, px; with so many values that they would be smaller, the picture is as wide as it must be. */
const [LEAST_CELL, MOST_CELL] = [9, 14];

/** Whether the picture needs more room than there is beside lists. */
export const isWide = ({ space }: Component): boolean =>
  laidOut(space.axes.map(({ values }) => values.length)).width > WIDTH;

interface DotPlace {
  readonly row: number;
  readonly column: number;
}

interface Slot {
  readonly axis: number;
  readonly value: number;
  readonly at: number;
}

/** Every value against every other: occurs, has a rule of its own, never. Arrow keys go through it; a cell says why. */
export function PairsPicture({ component, pairs }: { component: Component; pairs: readonly PairOfAxes[] }) {
  const { axes } = component.space;
  const [at, setAt] = useState<DotPlace | null>(null);
  const byAxes = useMemo(() => new Map(pairs.map(pair => [pair.axes.join(), pair])), [pairs]);
  const { columns, rows, cell, size, width } = useMemo(
    () => laidOut(axes.map(({ values }) => values.length)),
    [axes],
  );
  if (axes.length < 2) return null;
  const pairAt = ({ row, column }: DotPlace): Pair | null => {
    const [second, first] = [rows[row], columns[column]];
    if (!second || !first || first.axis >= second.axis) return null;
    return byAxes.get(`${first.axis},${second.axis}`)?.cells[second.value]?.[first.value] ?? null;
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    const from = at ?? { row: 0, column: 0 };
    const next = { row: from.row + step[0], column: from.column + step[1] };
    if (pairAt(next)) setAt(next);
  };
  const chosen = at && pairAt(at);
  return (
    <section className="pairs">
      <h2>
        Pairs <small>what occurs together</small>
      </h2>
      <svg
        width={width}
        height={size + BELOW}
        viewBox={`0 0 ${width} ${size + BELOW}`}
        role="application"
        tabIndex={0}
        aria-label={`Pairs of values. Arrow keys go through them. ${at && chosen ? sentenceOf(component, rows[at.row]!, columns[at.column]!, chosen) : ''}`}
        onKeyDown={onKeyDown}
        onFocus={() => setAt(before => before ?? { row: 0, column: 0 })}
      >
        <defs>
          <pattern
            id="never"
            width="4"
            height="4"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="4" height="4" className="ground" />
            <line x1="0" x2="0" y1="0" y2="4" className="hatch" />
          </pattern>
        </defs>
        {rows.map((second, row) =>
          columns.map((first, column) => {
            const pair = first.axis < second.axis ? pairAt({ row, column }) : null;
            return pair ? (
              <rect
                key={`${row} ${column}`}
                className={`pair ${pair.status}`}
                x={LEFT + first.at}
                y={second.at}
                width={cell - 1}
                height={cell - 1}
                onClick={() => setAt({ row, column })}
              >
                <title>{`${axes[first.axis]!.values[first.value]!.words}, ${axes[second.axis]!.values[second.value]!.words}`}</title>
              </rect>
            ) : null;
          }),
        )}
        {axes.slice(1).map((axis, index) => {
          const own = rows.filter(slot => slot.axis === index + 1);
          // The chosen value stands in the place of its axis.
          if (at && chosen && rows[at.row]!.axis === index + 1) return null;
          return (
            <text
              key={axis.id}
              x={LEFT - 9}
              y={(own[0]!.at + own.at(-1)!.at + cell) / 2 + 4}
              textAnchor="end"
            >
              {axis.title}
            </text>
          );
        })}
        {axes.slice(0, -1).map((axis, index) => {
          const own = columns.filter(slot => slot.axis === index);
          if (at && chosen && columns[at.column]!.axis === index) return null;
          const x = LEFT + (own[0]!.at + own.at(-1)!.at + cell) / 2;
          return (
            <text key={axis.id} transform={`translate(${x + 4} ${size + 12}) rotate(-38)`} textAnchor="end">
              {axis.title}
            </text>
          );
        })}
        {at && chosen ? (
          <g className="names">
            <text x={LEFT - 9} y={rows[at.row]!.at + cell / 2 + 4} textAnchor="end">
              {wordsAt(component, rows[at.row]!)}
            </text>
            <text
              transform={`translate(${LEFT + columns[at.column]!.at + cell / 2 + 4} ${size + 12}) rotate(-38)`}
              textAnchor="end"
            >
              {wordsAt(component, columns[at.column]!)}
            </text>
          </g>
        ) : null}
        {at && chosen ? (
          <rect
            className="chosen"
            x={LEFT + columns[at.column]!.at - 1}
            y={rows[at.row]!.at - 1}
            width={cell + 1}
            height={cell + 1}
          />
        ) : null}
      </svg>
      <p className="legend">
        <span className="key occurs" /> occurs <span className="key own" /> has a rule of its own{' '}
        <span className="key never" /> never
      </p>
      {at && chosen ? (
        <PairSentence
          component={component}
          second={rows[at.row]!}
          first={columns[at.column]!}
          pair={chosen}
        />
      ) : (
        <p className="said">Choose a cell to see why.</p>
      )}
    </section>
  );
}

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** Where values lie: those of all axes but the last across, of all but the first down. */
function laidOut(counts: readonly number[]) {
  const across = counts.slice(0, -1);
  const gaps = GAP * Math.max(0, across.length - 1);
  const room = WIDTH - LEFT - gaps;
  const total = across.reduce((sum, count) => sum + count, 0);
  const cell = Math.max(LEAST_CELL, Math.min(MOST_CELL, room / total));
  const width = cell > room / total ? LEFT + gaps + total * cell : WIDTH;
  const scale = scaleLinear().domain([0, 1]).range([0, cell]);
  const slots = (from: number, until: number): Slot[] => {
    let at = 0;
    return counts.slice(from, until).flatMap((count, index) => {
      const own = Array.from({ length: count }, (_, value) => ({
        axis: from + index,
        value,
        at: at + scale(value),
      }));
      at += scale(count) + GAP;
      return own;
    });
  };
  const [columns, rows] = [slots(0, -1), slots(1, counts.length)];
  return { columns, rows, cell, size: (rows.at(-1)?.at ?? 0) + cell, width };
}

const valueAt = ({ space }: Component, { axis, value }: Slot) => {
  const { id, values } = space.axes[axis]!;
  return { axis: id, value: values[value]!.id };
};

const wordsAt = ({ space }: Component, { axis, value }: Slot): string =>
  space.axes[axis]!.values[value]!.words;

function sentenceOf(component: Component, second: Slot, first: Slot, pair: Pair): string {
  const both = `${wordsAt(component, first)} and ${wordsAt(component, second)}`;
  if (pair.status === 'never') return `${both} never meet: ${reasonsOf(component, pair)}`;
  return pair.status === 'own'
    ? `${both} have a rule of their own: ${pair.because.join(', ')}.`
    : `${both} occur together.`;
}

const reasonsOf = (component: Component, { because }: Pair): string =>
  because
    .map(
      index =>
        component.space.limits.find(limit => limit.index === index)?.because || `limit ${Number(index) + 1}.`,
    )
    .join(' ');

function PairSentence({
  component,
  second,
  first,
  pair,
}: {
  component: Component;
  second: Slot;
  first: Slot;
  pair: Pair;
}) {
  const { id } = useStore();
  const [, open] = useOpened();
  const { space } = component;
  const region: Box = space.full.map((mask, axis) =>
    axis === first.axis ? 1 << first.value : axis === second.axis ? 1 << second.value : mask,
  );
  return (
    <div className="pair-sentence" role="status">
      <b>{wordsAt(component, first)}</b> and <b>{wordsAt(component, second)}</b>{' '}
      {pair.status === 'never' ? (
        <>
          never meet. <i className="said">{reasonsOf(component, pair)}</i>
          <br />
          {pair.because.map(index => (
            <button key={index} type="button" className="act" onClick={() => open(`limit:${index}`)}>
              the limit
            </button>
          ))}{' '}
          <ConsideredAct
            key={`${first.axis} ${first.value} ${second.axis} ${second.value}`}
            words="allow it"
            title={`${wordsAt(component, first)} and ${wordsAt(component, second)}`}
            edit={allowTogether(component.id, valueAt(component, first), valueAt(component, second))}
            label={`${component.title}: ${wordsAt(component, first)} and ${wordsAt(component, second)} can meet`}
            about={component.id}
          />
        </>
      ) : (
        <>
          {pair.status === 'own' ? (
            <>
              have a rule of their own: <code>{pair.because.join(', ')}</code>.{' '}
            </>
          ) : (
            'occur together. '
          )}
          <Link to={regionAddress(id, component, region, '')}>a plate of just those</Link>
        </>
      )}
    </div>
  );
}
