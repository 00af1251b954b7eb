import { derivedDocuments } from '../../derivation/derived-documents';
import type { ComponentDocument } from '../../documents/component-document';
import amount from './points/amount.component.json';
import area from './points/area.component.json';
import choice from './points/choice.component.json';
import code from './points/code.component.json';
import count from './points/count.component.json';
import search from './points/search.component.json';
import secret from './points/secret.component.json';
import button from './points/starting-button.component.json';
import text from './points/text.component.json';
import time from './points/time.component.json';
import toggle from './points/toggle.component.json';

/**
 * From what a new field can be begun: components in our own format, most of them derived from the plain one. Where a token belongs they
 * have a role, `{line.rest}`. Adding one is adding a document and naming it here.
 */
const POINTS = [text, area, secret, count, amount, time, code, choice, search, toggle];

export interface StartingPoint {
  readonly id: string;
  readonly title: string;
  readonly summary: string;
  /** With all that it takes of the one from which it is derived. */
  readonly document: ComponentDocument;
}

const file = (id: string): string => `components/${id}.component.json`;

const { documents } = derivedDocuments(
  new Map<string, unknown>([...POINTS, button].map(each => [file(each.id), each])),
);

/** A component as if it had been written without a base. */
function standalone(id: string): ComponentDocument {
  const { extends: _, ...members } = documents.get(file(id)) as ComponentDocument;
  const said = Object.entries(members).filter(([, value]) => !Array.isArray(value) || value.length > 0);
  return Object.fromEntries(said) as unknown as ComponentDocument;
}

export const STARTING_POINTS: readonly StartingPoint[] = POINTS.map(({ id, title, summary }) => ({
  id,
  title,
  summary,
  document: standalone(id),
}));

/** The button that starting points nest, by an id that stands for that of the system's own. */
export const BUTTON = standalone(button.id);
