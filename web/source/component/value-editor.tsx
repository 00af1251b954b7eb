import {
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
} from 'react';
import { createPortal } from 'react-dom';
import type { LocalProblem } from '@periwinkle/core/formats/problem';
import { propertyNamed } from '@periwinkle/core/values/property-registry';
import { printValue } from '@periwinkle/core/values/print-value';
import { typedToken } from '@periwinkle/core/values/typed-value';
import type { System } from '@periwinkle/core/components/system';
import { valueKind } from '@periwinkle/core/values/value-kinds';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';

/** Something that can be put in: a token or a keyword. */
interface Candidate {
  readonly text: string;
  readonly shown: string;
  /** Settled value in each context to show. */
  readonly values: readonly string[];
  readonly note: string;
}

export interface ValueEditorProps {
  readonly system: System;
  readonly contexts: ContextInput;
  readonly property: string;
  readonly initial: string;
  /** Contrast of a settled colour where this property is, if that means something here. */
  readonly contrastOf: ((value: string) => number | null) | null;
  /** What is wrong with a text, or `null`. */
  readonly fault: (text: string) => LocalProblem | null;
  readonly onTry: (text: string | null) => void;
  readonly onSet: (text: string) => void;
  readonly onLeave: () => void;
  /** Makes a token of this name; absent where none could be used. */
  readonly onNewToken: ((name: string) => void) | null;
}

const MOST = 200;

/**
 * Writes a value: by typing, from the list of fitting tokens and keywords, or by stepping a number with the arrow keys.
 * What is chosen in the list is tried out on the plate; Escape restores.
 */
export function ValueEditor(props: ValueEditorProps) {
  const { property, initial, fault, onTry, onSet, onLeave, onNewToken } = props;
  const [text, setText] = useState(initial);
  const [chosen, setChosen] = useState(-1);
  const [problem, setProblem] = useState<LocalProblem | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const done = useRef(false);
  const all = useCandidates(props);
  const touched = text !== initial;
  const missing = onNewToken && touched ? missingToken(text, all) : null;
  const listed = useMemo(() => fitting(all, touched ? text : ''), [all, text, touched]);
  useEffect(() => {
    input.current?.focus();
    input.current?.select();
  }, []);

  const finish = (act: () => void): void => {
    if (done.current) return;
    done.current = true;
    act();
  };
  const set = (wanted: string): void => {
    const settled = asToken(wanted, all);
    const found = fault(settled);
    if (found) return setProblem(found);
    finish(() => onSet(settled));
  };
  const tryOut = (wanted: string): void => onTry(fault(wanted) ? null : wanted);
  const choose = (index: number): void => {
    const next = Math.max(0, Math.min(listed.length - 1, index));
    setChosen(next);
    if (listed[next]) tryOut(listed[next].text);
  };
  const write = (wanted: string): void => {
    setText(wanted);
    setChosen(-1);
    setProblem(null);
    tryOut(asToken(wanted, all));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      const stepped = chosen < 0 ? steppedNumber(text, -step * (event.shiftKey ? 10 : 1)) : null;
      if (stepped !== null) write(stepped);
      else choose(chosen + step);
    }
    if (event.key === 'Enter') {
      event.preventDefault();
      event.stopPropagation();
      if (event.ctrlKey && missing) return finish(() => onNewToken!(missing));
      set(listed[chosen]?.text ?? text);
    }
    if (event.key === 'Escape') {
      event.preventDefault();
      event.stopPropagation();
      finish(onLeave);
    }
    if (event.key === 'Tab') set(listed[chosen]?.text ?? text);
  };
  return (
    <div className="editor">
      <input
        ref={input}
        value={text}
        spellCheck={false}
        autoComplete="off"
        role="combobox"
        aria-label={`Value of ${property}`}
        aria-expanded={listed.length > 0}
        aria-controls="completion"
        aria-activedescendant={chosen >= 0 ? `candidate-${chosen}` : undefined}
        aria-invalid={problem !== null}
        aria-describedby={problem ? 'entry-fault' : undefined}
        onChange={event => write(event.target.value)}
        onKeyDown={onKeyDown}
        onBlur={() =>
          finish(() => (touched && !fault(asToken(text, all)) ? onSet(asToken(text, all)) : onLeave()))
        }
      />
      <Below anchor={input}>
        {problem ? (
          <div className="fault" id="entry-fault" role="alert">
            {problem.message}{' '}
            {problem.suggestion ? (
              <button
                type="button"
                onMouseDown={event => event.preventDefault()}
                onClick={() => write(problem.suggestion!)}
              >
                take {problem.suggestion}
              </button>
            ) : null}
          </div>
        ) : null}
        <ul
          className="completion"
          style={{ position: 'static' }}
          id="completion"
          role="listbox"
          aria-label="What fits"
        >
          {listed.map((candidate, index) => (
            <CandidateLine
              key={candidate.text}
              candidate={candidate}
              index={index}
              chosen={index === chosen}
              onHover={() => choose(index)}
              onPress={() => set(candidate.text)}
            />
          ))}
        </ul>
        {missing ? (
          <button
            type="button"
            className="new-token-line"
            onMouseDown={event => event.preventDefault()}
            onClick={() => finish(() => onNewToken!(missing))}
          >
            make the token {missing} <kbd>Ctrl+Enter</kbd>
          </button>
        ) : null}
      </Below>
    </div>
  );
}

function CandidateLine({
  candidate,
  index,
  chosen,
  onHover,
  onPress,
}: {
  candidate: Candidate;
  index: number;
  chosen: boolean;
  onHover: () => void;
  onPress: () => void;
}) {
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (chosen) line.current?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);
  return (
    <li
      ref={line}
      id={`candidate-${index}`}
      role="option"
      aria-selected={chosen}
      className={chosen ? 'chosen' : ''}
      onMouseDown={event => event.preventDefault()}
      onMouseMove={() => chosen || onHover()}
      onClick={onPress}
    >
      {candidate.values.map((value, place) =>
        value.startsWith('#') ? <span key={place} className="swatch" style={{ background: value }} /> : null,
      )}
      {candidate.shown}
      <span className="value">{candidate.note}</span>
    </li>
  );
}

/** Lies right below the input, over everything else, wherever scrolling has put it. */
function Below({ anchor, children }: { anchor: RefObject<HTMLInputElement | null>; children: ReactNode }) {
  const [style, setStyle] = useState<CSSProperties>({ visibility: 'hidden' });
  useLayoutEffect(() => {
    const place = (): void => {
      const box = anchor.current?.getBoundingClientRect();
      if (!box) return;
      const above = box.bottom + 280 > innerHeight && box.top > 290;
      setStyle({
        position: 'fixed',
        zIndex: 30,
        left: Math.min(box.left, innerWidth - 440),
        ...(above ? { bottom: innerHeight - box.top } : { top: box.bottom }),
      });
    };
    place();
    addEventListener('scroll', place, true);
    addEventListener('resize', place);
    return () => {
      removeEventListener('scroll', place, true);
      removeEventListener('resize', place);
    };
  }, [anchor]);
  return createPortal(<div style={style}>{children}</div>, document.getElementById('main') ?? document.body);
}

function useCandidates({ system, contexts, property, contrastOf }: ValueEditorProps): readonly Candidate[] {
  return useMemo(() => {
    const row = propertyNamed(property);
    if (!row) return [];
    const types = valueKind(row.kind).tokenTypes;
    const sets = system.tokens.alongEach();
    const here = system.tokens.in(contexts);
    const tokens = [...here.byKey.values()].filter(token => types.includes(token.type));
    return [
      ...tokens.map(token => {
        const value = printValue(typedToken(row, token, system.rootFontSize));
        const ratio = contrastOf && token.type === 'color' ? contrastOf(value) : null;
        return {
          text: `{${token.key}}`,
          shown: token.key,
          values: [
            ...new Set(
              sets.flatMap(set => {
                const each = set.byKey.get(token.key);
                return each ? [printValue(typedToken(row, each, system.rootFontSize))] : [];
              }),
            ),
          ],
          note: ratio === null ? value.slice(0, 34) : `${value}  ${ratio.toFixed(1)} to 1`,
        };
      }),
      ...row.keywords.map(keyword => ({ text: keyword, shown: keyword, values: [], note: '' })),
    ];
  }, [system, contexts, property, contrastOf]);
}

/** Candidates that hold every piece of what is typed, the best first: those that begin with it, then by length. */
function fitting(all: readonly Candidate[], text: string): readonly Candidate[] {
  const wanted = text.replace(/[{}]/g, '').trim().toLowerCase();
  if (wanted === '') return all.slice(0, MOST);
  const pieces = wanted.split(/[\s.]+/).filter(Boolean);
  return all.filter(each => pieces.every(piece => each.shown.toLowerCase().includes(piece))).slice(0, MOST);
}

/** A token's bare name is taken for the token. */
const asToken = (text: string, all: readonly Candidate[]): string => {
  const bare = text.trim();
  return all.some(each => each.shown === bare && each.text === `{${bare}}`) ? `{${bare}}` : bare;
};

/** The name of a token that is written but does not exist; `null` for anything else. */
function missingToken(text: string, all: readonly Candidate[]): string | null {
  const name = text.trim().replace(/^\{(.*)\}$/, '$1');
  const looksLikeOne = /^[a-z][\w-]*(\.[\w-]+)+$/i.test(name);
  return looksLikeOne && !all.some(each => each.shown === name) ? name : null;
}

/** `12px` stepped by one, with the decimals it has; `null` for anything that is no number with a unit. */
function steppedNumber(text: string, steps: number): string | null {
  const match = /^(-?\d*\.?\d+)([a-z%]*)$/i.exec(text.trim());
  if (!match) return null;
  const decimals = (match[1]!.split('.')[1] ?? '').length;
  return `${(Number(match[1]) + steps / 10 ** decimals).toFixed(decimals)}${match[2]}`;
}
