import type { Part } from './anatomy/part';
import { oneOf } from '../json/problem';
import { nearest } from '../text/suggestions';
import type { Property } from '../css/property';
import { readProperty } from '../css/value-syntax';

export type ReadPropertyOn =
  | { readonly ok: true; readonly property: Property }
  | {
      readonly ok: false;
      readonly code: 'unknown-property' | 'not-in-pseudo-part';
      readonly message: string;
      readonly suggestion?: string;
    };

/** The registry's row for a property that is written for a part, or why it cannot be said there. */
export function readPropertyOn({ pseudo }: Part, name: string): ReadPropertyOn {
  const read = readProperty(name);
  if (!read.ok) return { ...read, code: 'unknown-property', ...sidesOf(name) };
  if (!pseudo || counts(pseudo.properties, read.property)) return read;
  const names = [...pseudo.properties];
  const suggestion = nearest(name, names);
  return {
    ok: false,
    code: 'not-in-pseudo-part',
    message: `What a browser draws there has no ${name} of its own; it takes ${oneOf(names, 20)}.`,
    ...(suggestion === undefined ? {} : { suggestion }),
  };
}

/** Sides are named by the direction of the text: left is one or the other. */
function sidesOf(name: string): { readonly message?: string; readonly suggestion?: string } {
  const [, before, side] = /^(padding|margin|inset)-(left|right)$/.exec(name) ?? [];
  if (!before || !side) return {};
  const [usual, other] = side === 'left' ? ['start', 'end'] : ['end', 'start'];
  return {
    message:
      `There is no ${name}, since left and right change with the direction of the text: ` +
      `${before}-inline-${usual} is on the ${side} where it runs to the right, ${before}-inline-${other} where it runs to the left.`,
    suggestion: `${before}-inline-${usual}`,
  };
}

/** Whether a property counts among some, or all that it is shared out among. */
const counts = (among: ReadonlySet<string>, { name, members }: Property): boolean =>
  members.length > 0 ? members.every(member => among.has(member.property)) : among.has(name);
