import type { ContentDocument } from '../../documents/component-document';
import { isObject } from '../../json/json';
import { CONVERSIONS } from './conversions';
import { lengthOf } from '../../text/graphemes';
import { halfOf } from './times';

/** What texts that follow from others are made of. */
export interface Surroundings {
  /** What is entered. */
  readonly value: () => string;
  /** Number of entries of the component's list. */
  readonly entries: () => number;
  /** What an application, or a sample, knows, as one object. */
  readonly sources: Readonly<Record<string, unknown>>;
  /** BCP 47; English where it is not said. */
  readonly locale?: string;
}

/** The text of a content key that says where it comes from; `undefined` where nothing of it is there. */
export function derivedText(declared: ContentDocument, around: Surroundings): string | undefined {
  if (declared.text !== undefined) return filledIn(declared.text, around);
  for (const way of declared.from ?? []) {
    const given = sourceAt(around.sources, way);
    if (given !== undefined) return converted(given, declared.as);
  }
  return declared.else;
}

const converted = (text: string, as: string | undefined): string =>
  as !== undefined && Object.hasOwn(CONVERSIONS, as) ? CONVERSIONS[as]!(text) : text;

/** Text or number at the end of a way, `port.currency`; empty text is not there. */
function sourceAt(sources: Readonly<Record<string, unknown>>, way: string): string | undefined {
  let here: unknown = sources;
  for (const step of way.split('.')) {
    if (!isObject(here) || !Object.hasOwn(here, step)) return undefined;
    here = here[step];
  }
  return typeof here === 'number' || (typeof here === 'string' && here !== '') ? String(here) : undefined;
}

/** What a template can name beside sources; each as the surroundings have it. */
export const TEMPLATE_WORDS: Readonly<Record<string, (around: Surroundings) => string | undefined>> = {
  value: ({ value }) => value(),
  'value.half': ({ value, locale }) => halfOf(value(), locale ?? 'en'),
  'value.length': ({ value }) => String(lengthOf(value())),
  'value.least': ({ sources }) => sourceAt(sources, 'value.least'),
  'value.most': ({ sources }) => sourceAt(sources, 'value.most'),
  'list.length': ({ entries }) => String(entries()),
};

const PLACEHOLDER = /\{([^{}]*)\}/g;

/** What a template names, in order. */
export const namedIn = (template: string): string[] =>
  [...template.matchAll(PLACEHOLDER)].map(([, name]) => name!.trim());

function filledIn(template: string, around: Surroundings): string {
  return template.replace(PLACEHOLDER, (_, written: string) => {
    const name = written.trim();
    const word = Object.hasOwn(TEMPLATE_WORDS, name) ? TEMPLATE_WORDS[name] : undefined;
    return (word ? word(around) : sourceAt(around.sources, name)) ?? '';
  });
}
