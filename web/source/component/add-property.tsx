import { useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import { readPropertyOn } from '@periwinkle/core/components/property-on-part';
import { PROPERTY_NAMES } from '@periwinkle/core/css/property-registry';
import { Completion, fitting } from '../common/completion';

const MOST_LISTED = 50;

/** Adds a row to the ledger: a part and a property that no rule has set yet. */
export function AddProperty({
  component,
  onAdd,
}: {
  component: Component;
  onAdd: (part: string, property: string) => void;
}) {
  const { everyPart, byName } = component.anatomy;
  const [part, setPart] = useState(byName.has('frame') ? 'frame' : everyPart[0]!.name);
  const [name, setName] = useState('');
  const [asked, setAsked] = useState(false);
  const read = readPropertyOn(byName.get(part) ?? everyPart[0]!, name.trim());
  const properties = [...(byName.get(part)?.pseudo?.properties ?? PROPERTY_NAMES)].map(each => ({
    text: each,
    shown: each,
  }));
  const write = (text: string): void => {
    setName(text);
    setAsked(false);
  };
  const add = (): void => {
    setAsked(true);
    if (!read.ok) return;
    onAdd(part, name.trim());
    setName('');
    setAsked(false);
  };
  return (
    <form
      className="add-property"
      onSubmit={event => {
        event.preventDefault();
        add();
      }}
    >
      <label>
        <span className="said">another property on</span>{' '}
        <select value={part} onChange={event => setPart(event.target.value)}>
          {everyPart.map(each => (
            <option key={each.name}>{each.name}</option>
          ))}
        </select>
      </label>
      <Completion
        label="Property"
        text={name}
        items={fitting(properties, name, MOST_LISTED)}
        onType={write}
        onTake={item => item && write(item.text)}
        input={{ placeholder: 'border-color' }}
      />
      <button type="submit" className="act" disabled={name.trim() === ''}>
        add
      </button>
      {asked && !read.ok ? (
        <span className="fault" role="alert">
          {read.message}{' '}
          {read.suggestion ? (
            <button type="button" onClick={() => setName(read.suggestion!)}>
              take {read.suggestion}
            </button>
          ) : null}
        </span>
      ) : null}
    </form>
  );
}
