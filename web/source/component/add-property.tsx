import { useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import { PROPERTY_NAMES } from '@periwinkle/core/values/property-registry';
import { readProperty } from '@periwinkle/core/values/value-syntax';

/** Adds a row to the ledger: a part and a property that no rule has set yet. */
export function AddProperty({
  component,
  onAdd,
}: {
  component: Component;
  onAdd: (part: string, property: string) => void;
}) {
  const parts = component.anatomy.parts.map(part => part.name);
  const [part, setPart] = useState(component.anatomy.byName.has('frame') ? 'frame' : parts[0]!);
  const [name, setName] = useState('');
  const [asked, setAsked] = useState(false);
  const read = readProperty(name.trim());
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
          {parts.map(each => (
            <option key={each}>{each}</option>
          ))}
        </select>
      </label>
      <input
        list="properties"
        aria-label="Property"
        placeholder="border-color"
        value={name}
        spellCheck={false}
        onChange={event => {
          setName(event.target.value);
          setAsked(false);
        }}
      />
      <datalist id="properties">
        {PROPERTY_NAMES.map(each => (
          <option key={each} value={each} />
        ))}
      </datalist>
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
