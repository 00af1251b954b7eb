import { useMemo, useState } from 'react';
import type { ConditionDocument } from '@periwinkle/core/documents/condition-document';
import { ProblemList } from '@periwinkle/core/json/problem';
import type { Axis } from '@periwinkle/core/space/axis';
import { maskWords, readCondition } from '@periwinkle/core/space/condition';
import { Completion, fitting, type CompletionItem } from '../common/completion';

interface Term extends CompletionItem {
  readonly axis: string;
  readonly wanted: string | readonly string[];
}

const MOST_LISTED = 30;

/** A condition in words, written by adding words and taking them away. Of a limit's law each axis lists what it may be. */
export function ConditionEditor({
  label,
  axes,
  condition,
  isExact = false,
  onChange,
}: {
  label: string;
  axes: readonly Axis[];
  condition: ConditionDocument;
  /** Whether a word means just that value, where it otherwise means that rung of a ladder and all above it. */
  isExact?: boolean;
  onChange: (condition: ConditionDocument) => void;
}) {
  const [text, setText] = useState('');
  const terms = useMemo(() => axes.flatMap(axis => termsOf(axis, isExact)), [axes, isExact]);
  const add = ({ axis, wanted }: Term): void => {
    const before = condition[axis];
    setText('');
    // A second word on an option or a plain state is one more that may be.
    const isMore =
      before !== undefined && !axes.find(each => each.id === axis)?.ladder && typeof wanted === 'string';
    const both = isMore ? [...new Set([before, wanted].flat())] : wanted;
    onChange({ ...condition, [axis]: Array.isArray(both) && both.length === 1 ? both[0]! : both });
  };
  const remove = (axis: string): void => {
    const { [axis]: _, ...rest } = condition;
    onChange(rest);
  };
  return (
    <span className="condition-editor">
      {Object.keys(condition).map(id => {
        const axis = axes.find(each => each.id === id);
        return (
          <span key={id} className="term">
            <b>{axis ? wordsOf(axis, condition, axes, isExact) : id}</b>
            <button
              type="button"
              className="act"
              aria-label={`${label}: without ${axis?.title ?? id}`}
              onClick={() => remove(id)}
            >
              ×
            </button>
          </span>
        );
      })}
      <Completion
        label={label}
        text={text}
        items={fitting(terms, text, MOST_LISTED)}
        onType={setText}
        onTake={item => item && add(item)}
        choosesFirst
        describe={item => <span className="value">{axes.find(axis => axis.id === item.axis)?.title}</span>}
        input={{
          className: 'form-control form-control-sm',
          placeholder: Object.keys(condition).length === 0 ? 'always; or type when' : 'and …',
        }}
      />
    </span>
  );
}

/** What can be said of an axis in one go: a value, on a ladder also that value alone, and all but one. */
function termsOf(axis: Axis, isExact: boolean): Term[] {
  const ids = axis.values.map(({ id }) => id);
  const term = (shown: string, wanted: Term['wanted']): Term => ({
    text: `${axis.id} ${String(wanted)}`,
    shown,
    axis: axis.id,
    wanted,
  });
  return [
    ...axis.values.flatMap(({ id, words }, index) => [
      term(words, axis.ladder && index === 0 && !isExact ? [id] : id),
      ...(axis.ladder && index > 0 && index < ids.length - 1 && !isExact
        ? [term(`just ${words}`, [id])]
        : []),
    ]),
    ...(ids.length > 2
      ? axis.values
          .filter((_, index) => index > 0 || axis.kind === 'option')
          .map(({ id, words }) =>
            term(
              `not ${words}`,
              ids.filter(each => each !== id),
            ),
          )
      : []),
  ];
}

function wordsOf(axis: Axis, condition: ConditionDocument, axes: readonly Axis[], isExact: boolean): string {
  const box = readCondition(
    { [axis.id]: condition[axis.id]! },
    axes,
    '',
    new ProblemList(),
    isExact ? 'exact' : 'at-least',
  );
  return box ? maskWords(axis, box[axes.indexOf(axis)]!) : [condition[axis.id]!].flat().join(' or ');
}
