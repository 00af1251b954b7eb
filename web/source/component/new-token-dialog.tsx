import { useState } from 'react';
import type { PatchOperation } from '@periwinkle/core/patch/operations';
import type { System } from '@periwinkle/core/components/system';
import { isObject } from '@periwinkle/core/json/json';
import { newTokenNameProblem, newTokenPatch, tokenLayers } from '@periwinkle/core/edits/new-token';
import { readReference } from '@periwinkle/core/tokens/references';
import { readTokenText } from '@periwinkle/core/tokens/token-text';
import { Completion, fitting, type CompletionItem } from '../common/completion';
import { FormDialog } from '../common/dialog';

/** Edits of token files that make a token; several when each context has a file of its own. */
export type TokenEdits = readonly { readonly file: string; readonly patch: PatchOperation[] }[];

const MOST_LISTED = 50;

/** Makes a token in the middle of styling: name, layer, value, contexts. */
export function NewTokenDialog({
  system,
  name: asked,
  types,
  onMake,
  onClose,
}: {
  system: System;
  name: string;
  types: readonly string[];
  onMake: (key: string, edits: TokenEdits) => void;
  onClose: () => void;
}) {
  const manifest = system.documents.get('system.json');
  const layers = tokenLayers(
    system.documents,
    isObject(manifest) ? (manifest['resolver'] as string | undefined) : undefined,
  );
  const [name, setName] = useState(asked);
  const [type, setType] = useState(types[0] ?? 'color');
  const [layerId, setLayerId] = useState(layers[0]?.id ?? '');
  const [values, setValues] = useState<Readonly<Record<string, string>>>({});
  const [fault, setFault] = useState<string | null>(null);
  const layer = layers.find(each => each.id === layerId) ?? layers[0];
  const tokens = system.tokens.usual().byKey;
  const suggestionsFor = (text: string): readonly CompletionItem[] =>
    fitting(
      [...tokens.values()]
        .filter(token => token.type === type)
        .map(({ key }) => ({ text: `{${key}}`, shown: key })),
      text,
      MOST_LISTED,
    );
  const write = (file: string, text: string): void => {
    setValues(before => ({ ...before, [file]: text }));
    setFault(null);
  };

  const make = (): void => {
    const problem = newTokenNameProblem(name.trim(), key => tokens.has(key));
    if (problem) return setFault(problem);
    const edits: { file: string; patch: PatchOperation[] }[] = [];
    for (const { file } of layer?.files ?? []) {
      const read = readTokenText(type, values[file] ?? '');
      if (!read.ok) return setFault(read.message);
      const alias = readReference(read.value);
      const target = alias?.kind === 'alias' ? tokens.get(alias.key) : undefined;
      if (alias?.kind === 'alias' && target?.type !== type) {
        return setFault(
          target
            ? `{${alias.key}} is a ${target.type}; this is a ${type}.`
            : `There is no token {${alias.key}}.`,
        );
      }
      const patch = newTokenPatch(system.documents.get(file), name.trim(), type, read.value);
      if (!patch) return setFault(`Something of that name stands in ${file} already.`);
      edits.push({ file, patch });
    }
    onMake(name.trim(), edits);
  };
  return (
    <FormDialog title="A new token" act="Make it and use it" fault={fault} onAct={make} onClose={onClose}>
      <div className="new-token">
        <label htmlFor="token-name">name</label>
        <input
          id="token-name"
          className="form-control mono"
          value={name}
          spellCheck={false}
          onChange={event => setName(event.target.value)}
        />
        <label htmlFor="token-type">type</label>
        <select
          id="token-type"
          className="form-select"
          value={type}
          onChange={event => setType(event.target.value)}
        >
          {types.map(each => (
            <option key={each}>{each}</option>
          ))}
        </select>
        <label htmlFor="token-layer">layer</label>
        <select
          id="token-layer"
          className="form-select"
          value={layerId}
          onChange={event => setLayerId(event.target.value)}
        >
          {layers.map(each => (
            <option key={each.id} value={each.id}>
              {each.title}
            </option>
          ))}
        </select>
        {layer?.files.map(({ file, context }, index) => (
          <div key={file} style={{ display: 'contents' }}>
            <span aria-hidden="true">{context === null ? 'value' : `value by ${context}`}</span>
            <Completion
              label={context === null ? 'value' : `value by ${context}`}
              text={values[file] ?? ''}
              items={suggestionsFor(values[file] ?? '')}
              onType={text => write(file, text)}
              onTake={item => item && write(file, item.text)}
              describe={item => <span className="value">{tokens.get(item.shown)?.css}</span>}
              input={{
                className: 'form-control mono',
                autoFocus: index === 0,
                placeholder: '{another.token} or a value',
              }}
            />
          </div>
        ))}
      </div>
    </FormDialog>
  );
}
