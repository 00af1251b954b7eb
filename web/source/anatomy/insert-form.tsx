import { useState } from 'react';
import { partKind, PART_KINDS } from '@periwinkle/core/documents/part-kinds';
import type { Component } from '@periwinkle/core/components/component';
import type { PartPlace } from '@periwinkle/core/edits/renamed-names';
import { insertPart } from '@periwinkle/core/edits/part-edits';
import type { PartDocument } from '@periwinkle/core/documents/part-document';
import { Choice } from '../common/choice';
import { useSystemPart } from '../data/system-context';
import { CommitField } from '../making/commit-field';
import { useRestructure } from '../making/use-restructure';
import type { PartLine } from './part-lines';

/** What can be inserted. */
const KINDS = [
  ...PART_KINDS.map(({ kind, words }) => ({ id: kind, words: kind, hint: words })),
  { id: 'use', words: 'a component', hint: 'one of this system' },
];

/** A name that says what something is, and is free. */
export function freshName(word: string, lines: readonly PartLine[]): string {
  const taken = new Set(lines.map(({ name }) => name));
  let name = word;
  for (let number = 2; taken.has(name); number++) name = `${word}${number}`;
  return name;
}

/** Kinds that show something of the sample under a key of their own name. */
const SHOWING = new Set(['text', 'label', 'icon', 'action']);

/** Which kind of part is inserted somewhere, and how it is called. */
export function InsertForm({
  component,
  lines,
  where,
  place,
  onDone,
}: {
  component: Component;
  lines: readonly PartLine[];
  where: string;
  place: PartPlace;
  onDone: (name: string | null) => void;
}) {
  const system = useSystemPart('edited');
  const restructure = useRestructure();
  const others = system.components.filter(({ id }) => id !== component.id);
  const [kind, setKind] = useState('text');
  const [uses, setUses] = useState(others[0]?.id ?? '');
  const insert = (typed: string): string | null => {
    const name = typed.trim();
    if (name === '') return null;
    const content =
      kind === 'control'
        ? { content: 'value', element: 'input', type: 'text' }
        : SHOWING.has(kind)
          ? { content: name }
          : {};
    const part: PartDocument =
      kind === 'use' ? { part: name, kind, component: uses } : { part: name, kind, ...content };
    const reason = restructure(insertPart(component.id, part, place), `${component.title}: ${name} inserted`);
    if (reason === null) onDone(name);
    return reason;
  };
  return (
    <div className="insert">
      <span className="said">insert {where}</span>{' '}
      <Choice label="kind of part" value={kind} items={KINDS} onChoose={setKind}>
        {kind === 'use' ? 'a component' : kind}
      </Choice>{' '}
      {kind === 'use' ? (
        <Choice
          label="component"
          value={uses}
          items={others.map(({ id, title }) => ({ id, words: title }))}
          onChoose={setUses}
        >
          {others.find(({ id }) => id === uses)?.title ?? 'none'}
        </Choice>
      ) : (
        <span className="said">{partKind(kind)?.words}</span>
      )}
      <CommitField
        key={kind}
        label="called"
        mono
        value=""
        placeholder={freshName(kind === 'use' ? 'piece' : kind, lines)}
        autoFocus
        onCommit={insert}
      />
      <button type="button" className="act" onClick={() => onDone(null)}>
        leave it
      </button>
    </div>
  );
}
