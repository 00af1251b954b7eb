import type { Component } from '@periwinkle/core/components/component';
import { componentNamed } from '@periwinkle/core/components/system';
import { contentKeys } from '@periwinkle/core/components/content-keys';
import type { PartChange } from '@periwinkle/core/edits/part-edits';
import type { ConditionDocument } from '@periwinkle/core/documents/condition-document';
import { isObject } from '@periwinkle/core/json/json';
import { ProblemList } from '@periwinkle/core/json/problem';
import type { Axis } from '@periwinkle/core/space/axis';
import { conditionWords, readCondition } from '@periwinkle/core/space/condition';
import { Choice } from '../common/choice';
import { useSystemPart } from '../data/system-context';
import { ConditionEditor } from '../making/condition-editor';
import { partDocument } from './part-document';

interface Case {
  readonly when: ConditionDocument;
  readonly is: string;
}

const OWN = '';
const FOLLOWS = 'follows:';
const ALWAYS = 'is:';
const CASES = 'cases';

/** What a nested component follows, axis by axis, and what it shows, in words. */
export function Bindings({
  component,
  name,
  uses,
  onChange,
}: {
  component: Component;
  name: string;
  uses: string;
  onChange: (to: PartChange, words: string) => void;
}) {
  const system = useSystemPart('edited');
  const inner = componentNamed(system, uses);
  const part = partDocument(component, name);
  if (!inner || !part) return null;
  const content = isObject(part.content) ? (part.content as Readonly<Record<string, string>>) : {};
  const keys = contentKeys(component);
  const bind = (axis: Axis, binding: unknown): void =>
    onChange({ with: { [axis.id]: binding } }, `${axis.title} bound`);
  return (
    <>
      <h3>What {name} follows</h3>
      <ul className="lines bindings">
        {inner.space.axes.map(axis => (
          <li key={axis.id}>
            <BindingLine
              component={component}
              name={name}
              axis={axis}
              binding={part.with?.[axis.id]}
              onBind={next => bind(axis, next)}
            />
          </li>
        ))}
      </ul>
      <h3>What {name} shows</h3>
      <ul className="lines bindings">
        {contentKeys(inner).map(key => (
          <li key={key}>
            its <code>{key}</code> is{' '}
            <Choice
              label={`${key} of ${name}`}
              value={content[key] ?? OWN}
              items={[...new Set([...keys, `${name}${key.charAt(0).toUpperCase()}${key.slice(1)}`])]
                .map(id => ({ id, words: id }))
                .concat({ id: OWN, words: 'nothing' })}
              onChoose={from =>
                onChange(
                  { content: { [key]: (from === OWN ? null : from) as string } },
                  `shows ${from || 'nothing'} as ${key}`,
                )
              }
            >
              {content[key] ?? 'nothing'}
            </Choice>
          </li>
        ))}
      </ul>
    </>
  );
}

function BindingLine({
  component,
  name,
  axis,
  binding,
  onBind,
}: {
  component: Component;
  name: string;
  axis: Axis;
  binding: unknown;
  /** `null` leaves the axis to the nested component. */
  onBind: (binding: unknown) => void;
}) {
  const { axes } = component.space;
  const fitting = axes.filter(each => each.values.every(({ id }) => axis.indexOf.has(id)));
  const cases = Array.isArray(binding) ? (binding as readonly Case[]) : null;
  const kind =
    binding === undefined
      ? OWN
      : typeof binding === 'string'
        ? FOLLOWS + binding
        : cases
          ? CASES
          : isObject(binding) && 'is' in binding
            ? ALWAYS + String(binding['is'])
            : 'map';
  const items = [
    { id: OWN, words: 'has states of its own' },
    ...fitting.map(each => ({ id: FOLLOWS + each.id, words: `follows ${each.title}` })),
    ...axis.values.map(({ id, words }) => ({ id: ALWAYS + id, words: `is always ${words}` })),
    { id: CASES, words: 'depends, case by case' },
  ];
  const choose = (id: string): void => {
    if (id === OWN) onBind(null);
    else if (id.startsWith(FOLLOWS)) onBind(id.slice(FOLLOWS.length));
    else if (id.startsWith(ALWAYS)) onBind({ is: id.slice(ALWAYS.length) });
    else onBind([{ when: {}, is: axis.values.at(-1)!.id }]);
  };
  const rest = axis.values[axis.rest]!;
  return (
    <>
      <span className="said">{axis.title}</span>{' '}
      <Choice label={`${axis.title} of ${name}`} value={kind} items={items} onChoose={choose}>
        {items.find(({ id }) => id === kind)?.words ?? mapWords(binding)}
      </Choice>
      {cases ? (
        <ul className="cases">
          {cases.map((each, index) => {
            const withCase = (next: Case | null): void =>
              onBind(next ? cases.with(index, next) : cases.length > 1 ? cases.toSpliced(index, 1) : null);
            return (
              <li key={index}>
                {name} is{' '}
                <Choice
                  label={`case ${index + 1}`}
                  value={each.is}
                  items={axis.values.map(({ id, words }) => ({ id, words }))}
                  onChoose={is => withCase({ ...each, is })}
                >
                  {axis.values.find(({ id }) => id === each.is)?.words ?? each.is}
                </Choice>{' '}
                when <span className="unseen">{caseWords(component, each)}</span>
                <ConditionEditor
                  label={`when, case ${index + 1}`}
                  axes={axes}
                  condition={each.when}
                  onChange={when => withCase({ ...each, when })}
                />
                <button
                  type="button"
                  className="act"
                  aria-label={`without case ${index + 1}`}
                  onClick={() => withCase(null)}
                >
                  ×
                </button>
              </li>
            );
          })}
          <li>
            else {rest.words} ·{' '}
            <button
              type="button"
              className="act"
              onClick={() => onBind([...cases, { when: {}, is: axis.values.at(-1)!.id }])}
            >
              another case
            </button>
          </li>
        </ul>
      ) : null}
    </>
  );
}

function caseWords({ space }: Component, { when }: Case): string {
  const box = readCondition(when, space.axes, '', new ProblemList());
  return box ? conditionWords(box, space.axes) : '';
}

/** A map in words: `invalid becomes bad`. */
function mapWords(binding: unknown): string {
  if (!isObject(binding) || !isObject(binding['map'])) return 'as written';
  const pairs = Object.entries(binding['map']).map(([from, to]) => `${from} becomes ${String(to)}`);
  return `by ${String(binding['axis'])}: ${pairs.join(', ')}`;
}
