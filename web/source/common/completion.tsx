import { useCombobox } from 'downshift';
import {
  useLayoutEffect,
  useRef,
  useState,
  type CSSProperties,
  type InputHTMLAttributes,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
} from 'react';
import { createPortal } from 'react-dom';

/** Something that can be put in where one types. */
export interface CompletionItem {
  readonly text: string;
  /** What it is called. */
  readonly shown: string;
}

export interface CompletionProps<Item extends CompletionItem> {
  readonly label: string;
  readonly text: string;
  /** What fits what is typed, the best first. */
  readonly items: readonly Item[];
  readonly onType: (text: string) => void;
  /** Enter or a press: on an item, or on what is typed. */
  readonly onTake: (item: Item | null) => void;
  /** The item on which arrow keys or the pointer are; `null` where it is none any more. */
  readonly onChoose?: (item: Item | null) => void;
  readonly onEscape?: () => void;
  /** Sees a key first; `true` when it has dealt with it. `chosen` is the item that arrow keys are on. */
  readonly onKey?: (event: KeyboardEvent, chosen: Item | null) => boolean;
  /** What is said of an item beside its name. */
  readonly describe?: (item: Item) => ReactNode;
  /** Whether the first item is chosen to begin with. */
  readonly choosesFirst?: boolean;
  /** Shown as long as the input is, not only while one types. */
  readonly stays?: boolean;
  /** Lies below the input over everything else, or takes its place in the page. */
  readonly floats?: boolean;
  /** Above the list, and below it. */
  readonly before?: ReactNode;
  readonly after?: ReactNode;
  readonly input?: InputHTMLAttributes<HTMLInputElement>;
}

/** A line to type in, with a list of what fits: for every place where one writes the name of something. */
export function Completion<Item extends CompletionItem>(props: CompletionProps<Item>) {
  const { label, text, items, onType, onTake, onChoose, onEscape, onKey, describe, stays = false } = props;
  const { choosesFirst = false, floats = true, before, after } = props;
  const input = useRef<HTMLInputElement>(null);
  const first = choosesFirst && items.length > 0 ? 0 : -1;
  const { isOpen, highlightedIndex, getInputProps, getMenuProps, getItemProps } = useCombobox<Item>({
    items: [...items],
    inputValue: text,
    selectedItem: null,
    itemToString: item => item?.shown ?? '',
    ...(stays ? { isOpen: true } : {}),
    initialHighlightedIndex: first,
    onHighlightedIndexChange: ({ highlightedIndex: index }) => onChoose?.(items[index] ?? null),
    onSelectedItemChange: ({ selectedItem }) => selectedItem && onTake(selectedItem),
    stateReducer: (state, { type, changes }) => {
      switch (type) {
        // Whoever leaves has chosen nothing; who has the input decides what is made of what is typed.
        case useCombobox.stateChangeTypes.InputBlur:
          return { ...state, isOpen: false, highlightedIndex: -1 };
        case useCombobox.stateChangeTypes.InputKeyDownEscape:
          return { ...state, isOpen: false };
        case useCombobox.stateChangeTypes.InputChange:
          return { ...changes, highlightedIndex: first };
        // A press into the line is for the text.
        case useCombobox.stateChangeTypes.InputClick:
          return state;
        default:
          return changes;
      }
    },
  });
  const chosen = items[highlightedIndex] ?? null;
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>): void => {
    const keep = (): void => {
      (event.nativeEvent as { preventDownshiftDefault?: boolean }).preventDownshiftDefault = true;
    };
    const leave = (): void => {
      event.preventDefault();
      event.stopPropagation();
      keep();
    };
    if (onKey?.(event, chosen)) return leave();
    if (event.key === 'Escape' && onEscape) {
      leave();
      return onEscape();
    }
    // What lies above stays: only the list closes.
    if (event.key === 'Escape' && isOpen) event.stopPropagation();
    if (event.key !== 'Enter') return;
    // With nothing chosen it is for the form around.
    if (!stays && !(isOpen && chosen)) return keep();
    leave();
    onTake(chosen);
  };
  const isListed = isOpen && items.length > 0;
  const list = (
    <>
      {before}
      <ul
        {...getMenuProps({ 'aria-label': `${label}: what fits` }, { suppressRefError: true })}
        className="completion"
        hidden={!isListed}
      >
        {isListed
          ? items.map((item, index) => (
              <li
                key={item.text}
                {...getItemProps({ item, index })}
                className={index === highlightedIndex ? 'chosen' : ''}
                onMouseDown={event => event.preventDefault()}
              >
                {describe?.(item)}
                <span className="shown">{item.shown}</span>
              </li>
            ))
          : null}
      </ul>
      {after}
    </>
  );
  return (
    <>
      <input
        spellCheck={false}
        {...props.input}
        {...getInputProps({
          ref: input,
          'aria-label': label,
          'aria-expanded': isListed,
          onChange: event => onType((event.target as HTMLInputElement).value),
          onKeyDown,
          onBlur: props.input?.onBlur,
          onFocus: props.input?.onFocus,
        })}
      />
      {floats ? <Below anchor={input}>{list}</Below> : list}
    </>
  );
}

const BELOW_PX = 280;

/** Lies right below the input, over everything else, wherever scrolling has put it. */
function Below({ anchor, children }: { anchor: RefObject<HTMLInputElement | null>; children: ReactNode }) {
  const [style, setStyle] = useState<CSSProperties>({ visibility: 'hidden' });
  const [place, setPlace] = useState<Element | null>(null);
  useLayoutEffect(() => {
    // What lies in a dialog must stay in it, for the focus and for readers.
    setPlace(anchor.current?.closest('[role="dialog"]') ?? document.getElementById('main'));
    const follow = (): void => {
      const box = anchor.current?.getBoundingClientRect();
      if (!box) return;
      const above = box.bottom + BELOW_PX > innerHeight && box.top > BELOW_PX + 10;
      setStyle({
        position: 'fixed',
        zIndex: 30,
        left: Math.min(box.left, innerWidth - 440),
        ...(above ? { bottom: innerHeight - box.top } : { top: box.bottom }),
      });
    };
    follow();
    addEventListener('scroll', follow, true);
    addEventListener('resize', follow);
    return () => {
      removeEventListener('scroll', follow, true);
      removeEventListener('resize', follow);
    };
  }, [anchor]);
  return place ? createPortal(<div style={style}>{children}</div>, place) : null;
}

/** Items that hold every piece of what is typed, in their order. */
export function fitting<Item extends CompletionItem>(
  all: readonly Item[],
  text: string,
  most: number,
): readonly Item[] {
  const wanted = text.replace(/[{}]/g, '').trim().toLowerCase();
  const pieces = wanted.split(/[\s.]+/).filter(Boolean);
  const found: Item[] = [];
  for (const item of all) {
    if (found.length === most) break;
    const name = item.shown.toLowerCase();
    if (pieces.every(piece => name.includes(piece))) found.push(item);
  }
  return found;
}
