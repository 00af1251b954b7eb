import {
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
} from 'react';
import { isSameJson } from '@periwinkle/core/json/json';
import { MovedNote, useDraft, useKeeping } from '../common/use-draft';
import { sampleKeysOf } from '@periwinkle/core/components/nesting/sample-keys';
import { writeText } from '@periwinkle/core/edits/sample-edits';
import type { SampleDocument } from '@periwinkle/core/documents/component-document';
import type { Combination } from '@periwinkle/core/space/space';
import { useStore } from '../data/system-context';
import { useRestructure } from '../making/use-restructure';
import type { Shape } from './specimen';

/** A text of a specimen that a sample gives, where it stands. */
interface Spot {
  readonly key: string;
  readonly text: string;
  readonly element: HTMLElement;
}

/** What is being written: which of a specimen's texts, in reading order, and where over it, as it was drawn then. */
interface Written {
  /** What the sample gave for the text when one began to write. */
  readonly given: unknown;
  readonly specimen: HTMLElement;
  readonly combination: Combination;
  readonly at: number;
  readonly spot: Spot;
  readonly style: CSSProperties;
}

/** A place in the window, px. */
interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Writing {
  /** Begins to write on a specimen: at the text nearest to a point of the window, or at its first. Says whether there is any. */
  readonly begin: (
    specimen: HTMLElement | null | undefined,
    combination: Combination,
    point?: Point,
  ) => boolean;
  /** What is written into, over the text itself; to stand in the frame, which is positioned. */
  readonly editor: ReactNode;
}

/**
 * Texts written where they are drawn: what is written goes into the sample, for the value of an axis where it differs by one. Enter and leaving keep
 * it, Escape does not, Tab goes on to the specimen's next text.
 */
export function useWriting(
  shape: Shape,
  sample: SampleDocument | undefined,
  frame: RefObject<HTMLElement | null>,
): Writing {
  const store = useStore();
  const restructure = useRestructure();
  const { component } = shape;
  const [written, setWritten] = useState<Written | null>(null);
  const write = (
    specimen: HTMLElement,
    combination: Combination,
    spots: readonly Spot[],
    at: number,
  ): boolean => {
    const spot = spots[at];
    setWritten(
      spot && frame.current
        ? {
            given: sample?.content[spot.key],
            specimen,
            combination,
            at,
            spot,
            style: styleOver(spot.element, frame.current),
          }
        : null,
    );
    return spot !== undefined;
  };
  const begin: Writing['begin'] = (specimen, combination, point) => {
    const spots = specimen && sample ? spotsOf(shape, specimen) : [];
    const at = point ? nearest(spots, point) : 0;
    return specimen && spots[at] ? write(specimen, combination, spots, at) : false;
  };
  /** The text by now: what somebody has made of it meanwhile, where that is another. */
  const textNow = ({ given, spot }: Written): string => {
    const now = sample?.content[spot.key] as unknown;
    if (isSameJson(now ?? null, given ?? null)) return spot.text;
    return typeof now === 'string' ? now : now === undefined ? '' : JSON.stringify(now);
  };
  const keep = ({ spot, combination }: Written, text: string): void => {
    if (!sample || text === spot.text) return;
    const reason = restructure(
      writeText(component.id, sample.id, spot.key, text, combination),
      `${component.title}: ${spot.key} of ${sample.title ?? sample.id} is “${text}”`,
    );
    if (reason !== null) store.say('error', reason);
  };
  const leave = ({ specimen }: Written): void => {
    specimen.closest<HTMLElement>('[tabindex]')?.focus();
    setWritten(null);
  };
  const goOn = (from: Written, by: -1 | 1): void => {
    // What was kept may bring in texts or take some away; it is drawn by the next frame.
    requestAnimationFrame(() => {
      const { specimen, combination, at } = from;
      if (!write(specimen, combination, spotsOf(shape, specimen), at + by)) leave(from);
    });
  };
  const editor =
    written && sample ? (
      <SpotEditor
        key={`${written.at} ${written.spot.key}`}
        value={textNow(written)}
        style={written.style}
        label={`${written.spot.key} of ${sample.title ?? sample.id}`}
        onKeep={text => keep(written, text)}
        onLeave={() => leave(written)}
        onGo={by => goOn(written, by)}
      />
    ) : null;
  return { begin, editor };
}

/** The text that a point lies on, or next to. */
function nearest(spots: readonly Spot[], { x, y }: Point): number {
  const beyond = (at: number, from: number, to: number): number => Math.max(from - at, 0, at - to);
  const distances = spots.map(({ element }) => {
    const { left, right, top, bottom } = element.getBoundingClientRect();
    return Math.hypot(beyond(x, left, right), beyond(y, top, bottom));
  });
  return distances.indexOf(Math.min(...distances));
}

/** The texts of a specimen that can be written, in reading order. */
function spotsOf({ component, names }: Shape, specimen: HTMLElement): Spot[] {
  const shadow = specimen.shadowRoot;
  if (!shadow) return [];
  return component.anatomy.parts.flatMap(({ name }) => {
    const keys = sampleKeysOf(component, name);
    const element =
      keys.length > 0 ? shadow.querySelector<HTMLElement>(`.${CSS.escape(names.part(name))}`) : null;
    if (!element || element.getClientRects().length === 0) return [];
    const text = textOf(element);
    const [first, placeholder = first] = keys;
    return text === '' && element.matches('input, textarea')
      ? [{ key: placeholder!, text: (element as HTMLInputElement).placeholder.trim(), element }]
      : [{ key: first!, text, element }];
  });
}

const textOf = (element: HTMLElement): string =>
  element instanceof HTMLInputElement ||
  element instanceof HTMLTextAreaElement ||
  element instanceof HTMLSelectElement
    ? element.value
    : (element.textContent ?? '');

/** Beside the letters, and the width beyond which what is written scrolls; px. */
const PADDING = 3;
const MOST_WIDTH = 420;

/** Where to write over an element, in its own letters at the size at which they are seen. */
function styleOver(element: HTMLElement, frame: HTMLElement): CSSProperties {
  const box = element.getBoundingClientRect();
  const origin = frame.getBoundingClientRect();
  const { fontSize, fontFamily, fontWeight, textAlign, direction, lineHeight } = getComputedStyle(element);
  const scale = element.offsetWidth > 0 ? box.width / element.offsetWidth : 1;
  const letters = parseFloat(fontSize) * scale;
  const isOneLine = box.height < 2.4 * letters;
  return {
    left: box.left - origin.left + frame.scrollLeft - PADDING,
    top: box.top - origin.top + frame.scrollTop,
    minWidth: box.width + 2 * PADDING,
    maxWidth: Math.max(MOST_WIDTH, box.width + 2 * PADDING),
    minHeight: box.height,
    padding: `0 ${PADDING}px`,
    whiteSpace: isOneLine ? 'pre' : 'pre-wrap',
    fontSize: letters,
    lineHeight: isOneLine
      ? `${box.height}px`
      : `${(parseFloat(lineHeight) || 1.4 * parseFloat(fontSize)) * scale}px`,
    fontFamily,
    fontWeight,
    textAlign: textAlign as 'start',
    direction: direction as 'ltr',
  };
}

function SpotEditor({
  value,
  style,
  label,
  onKeep,
  onLeave,
  onGo,
}: {
  value: string;
  style: CSSProperties;
  label: string;
  onKeep: (text: string) => void;
  onLeave: () => void;
  onGo: (by: -1 | 1) => void;
}) {
  const draft = useDraft(value);
  const { text } = draft;
  // Leaving by a key has kept or dropped it already.
  const isDone = useRef(false);
  const onKeyDown = (event: KeyboardEvent): void => {
    event.stopPropagation();
    const ends = event.key === 'Escape' || event.key === 'Tab' || (event.key === 'Enter' && !event.shiftKey);
    if (!ends || event.nativeEvent.isComposing) return;
    event.preventDefault();
    if (event.key !== 'Escape' && !draft.mayPut()) return;
    isDone.current = true;
    if (event.key !== 'Escape') onKeep(text);
    if (event.key === 'Tab') onGo(event.shiftKey ? -1 : 1);
    else onLeave();
  };
  const keep = useKeeping(
    label,
    draft,
    () => isDone.current,
    () => {
      isDone.current = true;
      onKeep(text);
      return null;
    },
  );
  const area = (
    <textarea
      className="writing"
      aria-label={label}
      value={text}
      rows={1}
      spellCheck={false}
      style={style}
      autoFocus
      onFocus={event => event.target.select()}
      onChange={event => draft.write(event.target.value)}
      onBlur={() => {
        if (isDone.current) return;
        keep('field');
        isDone.current = true;
        onLeave();
      }}
      onPointerDown={event => event.stopPropagation()}
      onDoubleClick={event => event.stopPropagation()}
      onKeyDown={onKeyDown}
    />
  );
  if (draft.moved === null) return area;
  return (
    <>
      {area}
      <div className="writing-moved" style={{ left: style.left, top: style.top }}>
        <MovedNote draft={draft} />
      </div>
    </>
  );
}
