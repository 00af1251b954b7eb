import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import { namesOf } from '@periwinkle/core/render/names';
import type { SampleDocument } from '@periwinkle/core/documents/component-document';
import { placeCallouts, type Rect } from '@periwinkle/core/layout/callouts';
import { dimensionsOf } from '@periwinkle/core/layout/dimensions';
import { geometry, type PartBox } from '@periwinkle/core/layout/geometry';
import { resolve } from '@periwinkle/core/cascade/resolve';
import type { Combination } from '@periwinkle/core/space/space';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { pageColor } from '../specimen/page-color';
import { useNarrow } from '../common/use-narrow';
import { PreviewSurface } from '../specimen/preview-surface';
import { Specimen, useShape } from '../specimen/specimen';
import { useWriting } from '../specimen/use-writing';
import { DIMENSION_ROOM, DimensionLines } from './dimension-lines';
import { Measures } from './measures';
import type { PartLine } from './part-lines';

/** The stage in px, on a wide page and on a narrow one, and the width that a field is given, in CSS px. */
const STAGE = { wide: 780, narrow: 560, height: 470 };
const FIELD_WIDTH = 240;
/** Room for numbers at the sides. */
const SIDES = 80;

/** A component drawn large, its parts numbered, the chosen one measured. */
export function Stage({
  system,
  component,
  combination,
  sample,
  contexts,
  scale: wanted,
  lines,
  selected,
  onSelect,
  onCompared,
}: {
  system: System;
  component: Component;
  combination: Combination;
  sample: SampleDocument | undefined;
  contexts: ContextInput;
  scale: number;
  lines: readonly PartLine[];
  selected: PartLine | null;
  onSelect: (name: string | null) => void;
  /** By how many px at most the browser draws otherwise than reckoned, where no text decides. */
  onCompared: (difference: number) => void;
}) {
  const shape = useShape(system, component);
  const width = useNarrow() ? STAGE.narrow : STAGE.wide;
  const scale = Math.min(wanted, (width - SIDES) / FIELD_WIDTH);
  const holder = useRef<HTMLDivElement>(null);
  const frame = useRef<HTMLDivElement>(null);
  const writing = useWriting(shape, sample, frame);
  const write = (point?: { x: number; y: number }): boolean =>
    writing.begin(holder.current?.querySelector<HTMLElement>('.specimen'), combination, point);
  const [drawn, setDrawn] = useState<ReadonlyMap<string, Rect>>(new Map());
  const places = useMemo(
    () => geometry({ system, component, combination, sample, contexts, width: FIELD_WIDTH }),
    [system, component, combination, sample, contexts],
  );
  useLayoutEffect(() => {
    const measure = (): void => {
      const found = rectsOf(holder.current, component, system, scale);
      setDrawn(before => (isSame(before, found) ? before : found));
      onCompared(differenceOf(places, found));
    };
    measure();
    // Typefaces come after the first drawing.
    void document.fonts.ready.then(measure);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [component, system, places, scale, contexts]);
  const [root] = lines;
  // Widths that a text decides are only reckoned; the picture shows them as they are drawn.
  const rectOf = (name: string): Rect | null => {
    // Of what is repeated the first copy is shown.
    const place = places[name] ?? places[name.replace('/', ':1/')];
    if (!place) return null;
    return place.estimated ? (drawn.get(name) ?? place) : place;
  };
  const whole = (root && rectOf(root.part.name)) ?? { x: 0, y: 0, width: FIELD_WIDTH, height: 40 };
  const height = Math.max(STAGE.height, whole.height * scale + 230);
  // Lengths stand at the right and at the bottom; a wide field moves out of their way.
  const left = Math.min((width - whole.width * scale) / 2, width - DIMENSION_ROOM.x - whole.width * scale);
  const top = (height - DIMENSION_ROOM.y - whole.height * scale) / 2;
  const scaled = ({ x, y, width: wide, height: tall }: Rect): Rect => ({
    x: left + x * scale,
    y: top + y * scale,
    width: wide * scale,
    height: tall * scale,
  });
  const numbered = lines.flatMap(line => {
    const rect = rectOf(line.part.name);
    if (line.number === null || !rect || rect.width <= 0 || rect.height <= 0) return [];
    const isInk = line.uses !== null || !line.part.kind.box;
    return [{ line, rect, callout: { name: line.name, rect: scaled(rect), isInk } }];
  });
  const key = JSON.stringify([numbered.map(({ callout }) => callout), width, height]);
  const callouts = useMemo(
    () =>
      placeCallouts(
        numbered.map(({ callout }) => callout),
        scaled(whole),
        { x: 4, y: 4, width: width - DIMENSION_ROOM.x - 4, height: height - DIMENSION_ROOM.y - 4 },
      ),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- said whole by the key
    [key],
  );
  const chosen = selected && rectOf(selected.part.name);
  // Only the chosen part is measured.
  const chosenPart = selected?.part.name ?? null;
  const outcomes = useMemo(() => {
    if (chosenPart === null) return {};
    const context = { tokens: system.tokens.in(contexts), rootFontSize: system.rootFontSize };
    return resolve(component, combination, context).parts[chosenPart] ?? {};
  }, [system, component, combination, contexts, chosenPart]);
  const within = selected?.uses === null ? lines.filter(({ outer }) => outer === selected.name) : [];
  return (
    <>
      <div
        ref={frame}
        className="plate-frame stage"
        style={{ width, height }}
        onDoubleClick={event => write({ x: event.clientX, y: event.clientY })}
      >
        <PreviewSurface system={system} contexts={contexts} className="ground">
          <div
            ref={holder}
            className="held-large"
            style={{ left, top, width: FIELD_WIDTH, transform: `scale(${scale})` }}
          >
            <Specimen shape={shape} combination={combination} sample={sample} />
          </div>
        </PreviewSurface>
        <svg
          className={isDark(pageColor(system, contexts)) ? 'on-dark' : ''}
          width={width}
          height={height}
          viewBox={`0 0 ${width} ${height}`}
        >
          {chosen && selected ? (
            <>
              <rect className="chosen-part" {...scaled(chosen)} />
              <DimensionLines
                dimensions={dimensionsOf(
                  chosen,
                  within.flatMap(({ part }) => rectOf(part.name) ?? []),
                  outcomes,
                )}
                width={width}
                height={height}
                at={{ x: place => left + place * scale, y: place => top + place * scale }}
                isAbout={places[selected.part.name]?.estimated ?? false}
              />
            </>
          ) : null}
          {callouts.map(({ name, label, line }) => {
            const { number, part } = lines.find(each => each.name === name)!;
            return (
              <g
                key={name}
                className={name === selected?.name ? 'callout chosen' : 'callout'}
                onClick={() => onSelect(name)}
              >
                <title>{part.title}</title>
                <polyline points={line.map(({ x, y }) => `${x},${y}`).join(' ')} />
                <text x={label.x} y={label.y + 4.5} textAnchor="middle">
                  {number}
                </text>
              </g>
            );
          })}
        </svg>
        {writing.editor}
      </div>
      {selected && chosen ? (
        <Measures line={selected} place={places[selected.part.name] ?? null} outcomes={outcomes} />
      ) : null}
    </>
  );
}

/** Where the browser has drawn the parts, in CSS px from the root's corner. */
function rectsOf(
  holder: HTMLElement | null,
  component: Component,
  system: System,
  scale: number,
): Map<string, Rect> {
  const shadow = holder?.querySelector('.specimen')?.shadowRoot;
  const found = new Map<string, Rect>();
  if (!shadow) return found;
  const names = namesOf(system).component(component.id);
  const { root, parts } = component.anatomy;
  const elementOf = (name: string): Element | null =>
    shadow.querySelector(`.${CSS.escape(names.part(name))}`);
  const origin = elementOf(root.name)?.getBoundingClientRect();
  if (!origin) return found;
  for (const { name } of parts) {
    const box = elementOf(name)?.getBoundingClientRect();
    if (!box || (box.width === 0 && box.height === 0)) continue;
    found.set(name, {
      x: (box.x - origin.x) / scale,
      y: (box.y - origin.y) / scale,
      width: box.width / scale,
      height: box.height / scale,
    });
  }
  return found;
}

function isSame(a: ReadonlyMap<string, Rect>, b: ReadonlyMap<string, Rect>): boolean {
  return JSON.stringify([...a]) === JSON.stringify([...b]);
}

function differenceOf(places: Readonly<Record<string, PartBox>>, drawn: ReadonlyMap<string, Rect>): number {
  let most = 0;
  for (const [name, rect] of drawn) {
    const place = places[name];
    if (!place) continue;
    const upright = [rect.y - place.y, rect.height - place.height];
    const along = place.estimated ? [] : [rect.x - place.x, rect.width - place.width];
    for (const each of [...upright, ...along]) most = Math.max(most, Math.abs(each));
  }
  return most;
}

/** Whether a colour is dark, by its relative luminance (WCAG 2.2) without the curve. */
function isDark(hex: string): boolean {
  const [red, green, blue] = [1, 3, 5].map(at => parseInt(hex.slice(at, at + 2), 16)) as [
    number,
    number,
    number,
  ];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue < 110;
}
