import type { SampleDocument } from '../../documents/component-document';
import { isObject } from '../../json/json';

/** A way to try what content does to a field. */
export interface Stress {
  readonly id: string;
  readonly title: string;
  readonly of: (text: string, all: readonly string[]) => string;
}

const LONGER = 1.4;

/** What texts of other people and other languages do to a field. Adding one is adding a row. */
export const STRESSES: readonly Stress[] = [
  {
    id: 'longest',
    title: 'Longest',
    of: (text, all) => all.reduce((longest, each) => (each.length > longest.length ? each : longest), text),
  },
  {
    id: 'shortest',
    title: 'Shortest',
    of: (text, all) =>
      all.reduce((shortest, each) => (each !== '' && each.length < shortest.length ? each : shortest), text),
  },
  { id: 'longer', title: '40 % longer', of: text => lengthened(text, Math.ceil([...text].length * LONGER)) },
  // The text as such a language would have it: right to left override, and its end (UAX #9, section 2.2).
  { id: 'mirrored', title: 'Mirrored', of: text => (text === '' ? '' : `\u202e${text}\u202c`) },
  { id: 'unbroken', title: 'Unbroken', of: text => text.replace(/\s+/g, '') },
];

/** A text that is as long as wanted, by its own words. */
function lengthened(text: string, length: number): string {
  const words = text.split(/\s+/).filter(Boolean);
  if (words.length === 0) return text;
  let longer = text;
  for (let index = 0; [...longer].length < length; index++) longer += ` ${words[index % words.length]!}`;
  return [...longer].slice(0, length).join('').trimEnd();
}

/** A sample under stress: each of its texts changed; drawings, named by `isDrawing`, stay. `all` are the samples that there are. */
export function stressedSample(
  sample: SampleDocument,
  stress: Stress,
  all: readonly SampleDocument[],
  isDrawing: (key: string) => boolean,
): SampleDocument {
  const stressed = (key: string, value: unknown): unknown => {
    if (isDrawing(key)) return value;
    if (typeof value === 'string') return stress.of(value, textsOf(key, all));
    if (Array.isArray(value)) return value.map(entry => entryOf(entry));
    if (!isObject(value)) return value;
    return Object.fromEntries(
      Object.entries(value).map(([at, text]) => [
        at,
        typeof text === 'string' ? stress.of(text, textsOf(key, all)) : text,
      ]),
    );
  };
  const entryOf = (entry: unknown): unknown =>
    isObject(entry)
      ? Object.fromEntries(
          Object.entries(entry).map(([key, value]) => [key, key === 'is' ? value : stressed(key, value)]),
        )
      : entry;
  const content = Object.entries(sample.content).map(([key, value]) => [key, stressed(key, value)]);
  return {
    ...sample,
    id: `${sample.id}-${stress.id}`.slice(0, 64),
    title: `${sample.title ?? sample.id}, ${stress.title.toLowerCase()}`,
    content: Object.fromEntries(content) as SampleDocument['content'],
  };
}

/** Every text that some sample gives for a key. */
function textsOf(key: string, all: readonly SampleDocument[]): string[] {
  return all.flatMap(({ content }) => {
    const value = content[key];
    if (typeof value === 'string') return [value];
    return isObject(value) ? Object.values(value).filter(each => typeof each === 'string') : [];
  });
}
