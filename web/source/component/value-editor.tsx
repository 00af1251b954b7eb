import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { LocalProblem } from '@periwinkle/core/json/problem';
import { propertyNamed } from '@periwinkle/core/css/property-registry';
import { printValue } from '@periwinkle/core/css/print-value';
import { typedToken } from '@periwinkle/core/css/typed-value';
import type { System } from '@periwinkle/core/components/system';
import { valueType } from '@periwinkle/core/css/value-types';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import type { Token } from '@periwinkle/core/tokens/token-set';
import { Completion, fitting, type CompletionItem } from '../common/completion';
import { MovedNote, useDraft, useKeeping } from '../common/use-draft';

/** Something that can be put in: a token, by its key, or a keyword. */
interface Candidate extends CompletionItem {
  readonly token: string | null;
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
  const draft = useDraft(initial);
  const { text, isOpen: touched } = draft;
  const [problem, setProblem] = useState<LocalProblem | null>(null);
  const done = useRef(false);
  const all = useCandidates(props);
  const missing = onNewToken && touched ? missingToken(text, all) : null;
  const listed = useMemo(() => fitting(all, touched ? text : '', MOST), [all, text, touched]);

  const finish = (act: () => void): void => {
    if (done.current) return;
    done.current = true;
    act();
  };
  const set = (wanted: string): void => {
    const settled = asToken(wanted, all);
    const found = fault(settled);
    if (found) return setProblem(found);
    if (draft.mayPut()) finish(() => onSet(settled));
  };
  const leave = useKeeping(
    property,
    draft,
    () => done.current,
    () => {
      const settled = asToken(text, all);
      const found = fault(settled);
      if (!found) finish(() => onSet(settled));
      return found?.message ?? null;
    },
  );
  const tryOut = (wanted: string): void => onTry(fault(wanted) ? null : wanted);
  const write = (wanted: string): void => {
    draft.write(wanted);
    setProblem(null);
    tryOut(asToken(wanted, all));
  };
  const onKey = (event: KeyboardEvent, chosen: Candidate | null): boolean => {
    const step = { ArrowDown: -1, ArrowUp: 1 }[event.key];
    const stepped =
      step === undefined || chosen ? null : steppedNumber(text, step * (event.shiftKey ? 10 : 1));
    if (stepped !== null) {
      write(stepped);
      return true;
    }
    if (event.key === 'Enter' && event.ctrlKey && missing) {
      finish(() => onNewToken!(missing));
      return true;
    }
    // Focus goes on by itself.
    if (event.key === 'Tab') set(chosen?.text ?? text);
    return false;
  };
  return (
    <div className="editor">
      <Completion
        label={`Value of ${property}`}
        text={text}
        items={listed}
        onType={write}
        onTake={item => set(item?.text ?? text)}
        onChoose={item => tryOut(item?.text ?? asToken(text, all))}
        onEscape={() => finish(onLeave)}
        onKey={onKey}
        describe={candidate => <About candidate={candidate} {...props} />}
        stays
        before={
          draft.moved !== null ? (
            <MovedNote draft={draft} id="entry-fault" />
          ) : problem ? (
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
          ) : null
        }
        after={
          missing ? (
            <button
              type="button"
              className="new-token-line"
              onMouseDown={event => event.preventDefault()}
              onClick={() => finish(() => onNewToken!(missing))}
            >
              make the token {missing} <kbd>Ctrl+Enter</kbd>
            </button>
          ) : null
        }
        input={{
          autoFocus: true,
          autoComplete: 'off',
          'aria-invalid': problem !== null,
          'aria-describedby': problem || draft.moved !== null ? 'entry-fault' : undefined,
          onFocus: event => event.target.select(),
          onBlur: () => {
            leave('field');
            finish(onLeave);
          },
        }}
      />
    </div>
  );
}

/** What a token comes to in each context, drawn where it is a colour, and the contrast it has where it is to stand. */
function About({
  candidate: { token: key },
  system,
  contexts,
  property,
  contrastOf,
}: { candidate: Candidate } & ValueEditorProps) {
  const row = propertyNamed(property);
  const token = key === null ? undefined : system.tokens.in(contexts).byKey.get(key);
  if (!row || !token) return null;
  const printed = (each: Token): string => printValue(typedToken(row, each, system.rootFontSize));
  const everywhere = system.tokens.alongEach().flatMap(set => set.byKey.get(token.key) ?? []);
  const value = printed(token);
  const ratio = contrastOf && token.type === 'color' ? contrastOf(value) : null;
  return (
    <>
      {[...new Set(everywhere.map(printed))].map(each =>
        each.startsWith('#') ? <span key={each} className="swatch" style={{ background: each }} /> : null,
      )}
      <span className="value">
        {ratio === null ? value.slice(0, 34) : `${value}  ${ratio.toFixed(1)} to 1`}
      </span>
    </>
  );
}

function useCandidates({ system, contexts, property }: ValueEditorProps): readonly Candidate[] {
  const set = system.tokens.in(contexts);
  return useMemo(() => {
    const row = propertyNamed(property);
    if (!row) return [];
    const types = valueType(row.kind).tokenTypes;
    return [
      ...[...set.byKey.values()]
        .filter(token => types.includes(token.type))
        .map(({ key }) => ({ text: `{${key}}`, shown: key, token: key })),
      ...row.keywords.map(keyword => ({ text: keyword, shown: keyword, token: null })),
    ];
  }, [set, property]);
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
