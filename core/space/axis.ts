import type { AxisDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import { oneOf, type ProblemList } from '../json/problem';
import { nearest } from '../text/suggestions';
import { STATE_CATALOGUE, stateAxis, type StateAxisRow } from './state-catalogue';

export interface AxisValue {
  readonly id: string;
  readonly title: string;
  /** The title, or with the axis before it where another axis has a value of the same title: `helper text none`. */
  readonly words: string;
  readonly description: string;
}

/** An axis with everything the catalogue or the document says about it. */
export interface Axis {
  readonly id: string;
  readonly kind: 'option' | 'state';
  readonly title: string;
  readonly description: string;
  /** In meaningful order. */
  readonly values: readonly AxisValue[];
  /** Place of each value by its id. */
  readonly indexOf: ReadonlyMap<string, number>;
  /** Index of the default (option) or of the value at rest (state). */
  readonly rest: number;
  readonly ladder: boolean;
  /** The catalogue's row of a state axis. */
  readonly state: StateAxisRow | null;
}

/** Sets of values are bit masks of 32-bit integers; two bits are left to signs and shifts. */
export const MAX_VALUES = 30;

/** `labelPlacement` as an attribute or class writes it: `label-placement`. */
export function kebab(name: string): string {
  return name
    .replace(/([a-z0-9])([A-Z])/g, '$1-$2')
    .replace(/_/g, '-')
    .toLowerCase();
}

/** `label-placement` as people read it: `Label placement`. */
export function readable(name: string): string {
  const text = kebab(name).replace(/-/g, ' ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Reads the axes of a component; an axis that cannot be read is left out and reported. */
export function readAxes(documents: readonly AxisDocument[], problems: ProblemList): Axis[] {
  const axes: LoneAxis[] = [];
  /** By how outputs write their names. */
  const known = new Map<string, LoneAxis>();
  documents.forEach((document, index) => {
    const at = pointer('axes', index);
    const twin = known.get(kebab(document.id));
    if (twin) {
      problems.error(`${at}/id`, 'duplicate-id', `There is an axis “${twin.id}” already.`);
      return;
    }
    if (document.id === 'situation') {
      problems.error(
        `${at}/id`,
        'reserved-name',
        '“situation” names the situations and cannot name an axis.',
      );
      return;
    }
    const axis =
      document.kind === 'state' ? readState(document, at, problems) : readOption(document, at, problems);
    if (!axis) return;
    axes.push(axis);
    known.set(kebab(axis.id), axis);
  });
  return withClearWords(axes);
}

/** An axis as read alone, before it is known what else its values' titles stand for. */
type LoneAxis = Omit<Axis, 'values'> & { readonly values: readonly Omit<AxisValue, 'words'>[] };

function withClearWords(axes: readonly LoneAxis[]): Axis[] {
  const axesOf = new Map<string, Set<LoneAxis>>();
  for (const axis of axes) {
    for (const { title } of axis.values) {
      const own = axesOf.get(title) ?? new Set();
      axesOf.set(title, own.add(axis));
    }
  }
  return axes.map(axis => ({
    ...axis,
    values: axis.values.map(value => ({
      ...value,
      words: axesOf.get(value.title)!.size > 1 ? `${axis.title.toLowerCase()} ${value.title}` : value.title,
    })),
  }));
}

function readOption(document: AxisDocument, at: string, problems: ProblemList): LoneAxis | null {
  const values = document.values ?? [];
  if (values.length === 0) {
    problems.error(at, 'missing-key', `The option “${document.id}” needs values.`, undefined, 'values');
    return null;
  }
  if (values.length > MAX_VALUES) {
    problems.error(
      `${at}/values`,
      'too-many-values',
      `An axis has at most ${MAX_VALUES} values; this has ${values.length}.`,
    );
    return null;
  }
  const ids = values.map(value => value.id);
  ids.forEach((id, index) => {
    if (ids.indexOf(id) < index)
      problems.error(`${at}/values/${index}/id`, 'duplicate-id', `“${id}” is there already.`);
  });
  const preset = document.default ?? ids[0]!;
  let rest = ids.indexOf(preset);
  if (rest < 0) {
    problems.error(
      `${at}/default`,
      'unknown-value',
      `“${preset}” is no value of ${document.id}; there is ${oneOf(ids)}.`,
      nearest(preset, ids),
      preset,
    );
    rest = 0;
  }
  return {
    id: document.id,
    kind: 'option',
    title: document.title ?? readable(document.id),
    description: document.description ?? '',
    values: values.map(({ id, title, description }) => ({
      id,
      title: title ?? readable(id).toLowerCase(),
      description: description ?? '',
    })),
    indexOf: new Map(ids.map((id, index) => [id, index])),
    rest,
    ladder: false,
    state: null,
  };
}

function readState(document: AxisDocument, at: string, problems: ProblemList): LoneAxis | null {
  const row = stateAxis(document.id);
  if (!row) {
    const names = STATE_CATALOGUE.map(state => state.id);
    problems.error(
      `${at}/id`,
      'unknown-state',
      `“${document.id}” is no state; there is ${oneOf(names, 12)}.`,
      nearest(document.id, names),
    );
    return null;
  }
  const known = row.values.map(value => value.id);
  const wanted = document.values?.map(value => value.id) ?? known;
  wanted.forEach((id, index) => {
    if (known.includes(id)) return;
    problems.error(
      `${at}/values/${index}/id`,
      'unknown-value',
      `“${id}” is no value of ${row.id}; there is ${oneOf(known)}.`,
      nearest(id, known),
    );
  });
  // The catalogue's order is the meaning of a ladder; a document chooses among its values, not their order.
  const kept = row.values.filter((value, index) => index === 0 || wanted.includes(value.id));
  if (document.values && !wanted.includes(known[0]!)) {
    problems.error(`${at}/values`, 'missing-rest', `A state keeps its value at rest, “${known[0]}”.`);
  }
  if (document.default !== undefined && document.default !== known[0]) {
    problems.error(`${at}/default`, 'state-default', `A state begins at rest, “${known[0]}”.`, known[0]);
  }
  const written = new Map(document.values?.map(value => [value.id, value]));
  return {
    id: row.id,
    kind: 'state',
    title: document.title ?? row.title,
    description: document.description ?? '',
    values: kept.map(value => ({
      id: value.id,
      title: written.get(value.id)?.title ?? value.words,
      description: written.get(value.id)?.description ?? value.meaning,
    })),
    indexOf: new Map(kept.map((value, index) => [value.id, index])),
    rest: 0,
    ladder: row.ladder,
    state: row,
  };
}
