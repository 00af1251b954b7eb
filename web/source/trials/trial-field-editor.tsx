import type { Component } from '@periwinkle/core/components/component';
import type { TrialFieldDocument } from '@periwinkle/core/documents/trial-document';
import { Choice } from '../common/choice';
import { useStore } from '../data/system-context';
import { CommitField } from '../making/commit-field';

/** How a field stands in the form: under which name, with which words and options, and where. */
export function TrialFieldEditor({
  component,
  field,
  place,
  of,
  onChange,
  onMove,
  onRemove,
}: {
  component: Component | undefined;
  field: TrialFieldDocument;
  place: number;
  of: number;
  onChange: (field: TrialFieldDocument) => string | null;
  onMove: (to: number) => string | null;
  onRemove: () => string | null;
}) {
  const store = useStore();
  const said = (reason: string | null): void => {
    if (reason !== null) store.say('error', reason);
  };
  const { samples = [], space } = component ?? {};
  const options = (space?.axes ?? []).filter(({ kind }) => kind === 'option');
  const set = (axis: string, value: string): void => {
    const { [axis]: _, ...others } = field.set ?? {};
    const usual = options.find(({ id }) => id === axis)!;
    const next = usual.values[usual.rest]!.id === value ? others : { ...others, [axis]: value };
    const { set: before, ...rest } = field;
    said(onChange(Object.keys(next).length > 0 ? { ...rest, set: next } : before ? rest : field));
  };
  return (
    <div className="opened">
      <CommitField
        label="sent as"
        mono
        value={field.name}
        onCommit={name => onChange({ ...field, name: name.trim() })}
      />
      {samples.length > 1 ? (
        <Line label="words">
          <Choice
            label="sample"
            value={field.sample ?? samples[0]!.id}
            items={samples.map(({ id, title = id }) => ({ id, words: title }))}
            onChoose={sample => said(onChange({ ...field, sample }))}
          >
            {(samples.find(({ id }) => id === field.sample) ?? samples[0]!).title ?? samples[0]!.id}
          </Choice>
        </Line>
      ) : null}
      {space && space.axisIndex('requirement') >= 0 ? (
        <Line label="entry">
          <Choice
            label="requirement"
            value={field.required ? 'required' : 'optional'}
            items={['optional', 'required'].map(id => ({ id, words: id }))}
            onChoose={id => {
              const { required: _, ...rest } = field;
              said(onChange(id === 'required' ? { ...rest, required: true } : rest));
            }}
          >
            {field.required ? 'required' : 'optional'}
          </Choice>
        </Line>
      ) : null}
      {options.map(({ id, title, values, rest }) => {
        const value = values.find(each => each.id === field.set?.[id]) ?? values[rest]!;
        return (
          <Line key={id} label={title.toLowerCase()}>
            <Choice
              label={title}
              value={value.id}
              items={values.map(each => ({ id: each.id, words: each.words }))}
              onChoose={next => set(id, next)}
            >
              {value.words}
            </Choice>
          </Line>
        );
      })}
      <div className="acts">
        <button type="button" className="act" disabled={place === 0} onClick={() => said(onMove(place - 1))}>
          earlier
        </button>
        <button
          type="button"
          className="act"
          disabled={place === of - 1}
          onClick={() => said(onMove(place + 1))}
        >
          later
        </button>
        <button type="button" className="act" onClick={() => said(onRemove())}>
          take it out
        </button>
      </div>
    </div>
  );
}

function Line({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="commit-field">
      <span>{label}</span>
      <span>{children}</span>
    </div>
  );
}
