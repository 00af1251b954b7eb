import { isObject } from '@periwinkle/core/json/json';
import { readJson } from '@periwinkle/core/json/read-json';
import type { SampleDocument } from '@periwinkle/core/documents/component-document';
import { CommitField } from '../making/commit-field';

/** What an application would know, line by line: `port.currency: EUR`. */
export function SourcesField({
  sources,
  onCommit,
}: {
  sources: SampleDocument['sources'];
  /** `undefined` where nothing is known any more. */
  onCommit: (sources: SampleDocument['sources']) => string | null;
}) {
  return (
    <CommitField
      label="sources"
      mono
      lines={Math.max(2, written(sources ?? {}).length)}
      placeholder="port.currency: EUR"
      value={written(sources ?? {}).join('\n')}
      onCommit={text => {
        const read = readSources(text);
        return typeof read === 'string' ? read : onCommit(Object.keys(read).length > 0 ? read : undefined);
      }}
    />
  );
}

/** Every text and number by its way. */
function written(value: Readonly<Record<string, unknown>>, way = ''): string[] {
  return Object.entries(value).flatMap(([key, each]) =>
    isObject(each)
      ? written(each, `${way}${key}.`)
      : [`${way}${key}: ${typeof each === 'string' ? each : JSON.stringify(each)}`],
  );
}

const NAME = /^[A-Za-z][A-Za-z0-9_-]{0,63}$/;

/** Lines as an object, or what is wrong with them. */
function readSources(text: string): Record<string, unknown> | string {
  const result: Record<string, unknown> = {};
  for (const line of text.split('\n')) {
    if (line.trim() === '') continue;
    const at = line.indexOf(':');
    const way = line.slice(0, at).trim().split('.');
    if (at < 0 || !way.every(step => NAME.test(step)))
      return `“${line.trim().slice(0, 60)}” is not of the form port.currency: EUR.`;
    let here = result;
    for (const step of way.slice(0, -1)) {
      const inner = here[step] ?? (here[step] = {});
      if (!isObject(inner)) return `“${way.join('.')}” lies in what is a text already.`;
      here = inner as Record<string, unknown>;
    }
    here[way.at(-1)!] = valueOf(line.slice(at + 1).trim());
  }
  return result;
}

/** A number where it is written as one, else the text. */
function valueOf(text: string): unknown {
  const read = readJson(text);
  return read.ok && typeof read.value === 'number' ? read.value : text;
}
