import type { ReactNode } from 'react';
import type { EditScope } from '@periwinkle/core/cascade/plates/scope';
import type { Component } from '@periwinkle/core/components/component';
import { conditionWords } from '@periwinkle/core/space/condition';
import type { Box } from '@periwinkle/core/space/box';
import { Choice } from '../common/choice';
import { countText } from '../common/numbers';

const ANY = '/any';

/** Says in words what an edit will mean, and how far it reaches. Each bold word widens or narrows it. */
export function ScopeSentence({
  component,
  scope,
  aimed,
  onPlate,
  narrowed,
  onNarrow,
}: {
  component: Component;
  scope: EditScope | null;
  /** Region of another rule that is being written into, if any. */
  aimed: Box | null;
  onPlate: number;
  narrowed: Readonly<Record<string, string>>;
  onNarrow: (narrowed: Record<string, string>) => void;
}) {
  const { space } = component;
  const region = aimed ?? scope?.region;
  const total = countText(space.count());
  if (!region) {
    return (
      <div className="scope">
        The whole component, rule by rule: <span className="reach">{total} combinations.</span>
        <span className="reach hint"> Select cells, a row or a column to say where an edit shall hold.</span>
      </div>
    );
  }
  const reach = (
    <span className="reach">
      {' '}
      this reaches {countText(space.count(region))} of {total} combinations, {onPlate} of them on this plate
    </span>
  );
  if (aimed || !scope) {
    return (
      <div className="scope">
        In the rule <b>{conditionWords(region, space.axes)}</b>:{reach}
      </div>
    );
  }
  const choose = (axis: string, value: string): void => {
    const next = { ...narrowed };
    next[axis] = value === ANY ? '*' : value;
    onNarrow(next);
  };
  const states = scope.words.filter(word => space.axes[word.axis]!.kind === 'state');
  const options = scope.words.filter(word => space.axes[word.axis]!.kind === 'option');
  const named = new Set(scope.words.map(word => word.axis));
  const more = space.axes.filter((_, index) => !named.has(index));
  const word = ({ axis, text }: EditScope['words'][number]) => {
    const { id, title, values } = space.axes[axis]!;
    return (
      <Choice
        key={id}
        label={title}
        value={narrowed[id] ?? null}
        items={[
          { id: ANY, words: `any ${title.toLowerCase()}` },
          ...values.map(value => ({ id: value.id, words: value.title, hint: value.description })),
        ]}
        onChoose={value => choose(id, value)}
      >
        {text}
      </Choice>
    );
  };
  return (
    <div className="scope">
      {opening(states.length, options.length)}
      {joined(states.map(word))}
      {states.length > 0 && options.length > 0 ? ', in ' : ''}
      {joined(options.map(word))}:{reach}
      {more.length > 0 ? (
        <Choice
          label="Narrow"
          value={null}
          className="act"
          items={more.flatMap(axis =>
            axis.values.map(value => ({
              id: `${axis.id}:${value.id}`,
              words: value.words,
              hint: value.description,
            })),
          )}
          onChoose={id => choose(...(id.split(':') as [string, string]))}
        >
          narrower
        </Choice>
      ) : null}
      {Object.keys(narrowed).length > 0 ? (
        <button type="button" className="act" onClick={() => onNarrow({})}>
          as selected
        </button>
      ) : null}
    </div>
  );
}

function opening(states: number, options: number): string {
  if (states > 0) return 'When ';
  return options > 0 ? 'In ' : 'Always';
}

function joined(parts: ReactNode[]): ReactNode[] {
  return parts.flatMap((part, index) => (index === 0 ? [part] : [', ', part]));
}
