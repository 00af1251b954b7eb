import { sampleTexts } from '../components/content/sample-text';
import type { CheckDocument, ValueDocument } from '../documents/behaviour-document';
import type { SampleText } from '../documents/component-document';
import { acceptedText } from './accepted-text';
import type { PlayedField } from './rendered-field';
import type { FieldState } from './field-state';
import { firstFailing } from './validation';
import { atRest } from './machine';
import { valueFormatOf } from './value-format';
import { fieldsIn } from './other-fields';
import { textsBeside, textsMatching } from './pattern-texts';
import type { Plan } from './plan';
import { combinationAt } from './derived-states';

/** Texts worth typing into a field, and what no text is known for. */
export interface CandidateValues {
  /** What the sample has comes first, then one made text for each sort of value that it has none of. */
  readonly texts: readonly string[];
  /** Values that other fields of the form may have beside it, as acts of the application: by each something passes, and something fails. */
  readonly others: readonly string[];
  /** In words, where no known value passes all checks; `null` where one does. */
  readonly noneRight: string | null;
  /** In words, where no known value fails any check; `null` where one does, or where there is nothing to fail. */
  readonly noneWrong: string | null;
}

/**
 * Values that pass and fail each check of a field, as a person types them: the sample's own, and, of sorts that those lack, some made from the
 * checks and from the kind of value. A sort is what the machine tells values apart by: the first check that fails, and the end of a range.
 */
export function candidateValues(field: PlayedField): CandidateValues {
  const { plan } = field;
  const start = atRest(plan);
  const sorted = new Map<string, string>();
  const keep = (text: string): void => {
    const sort = sortOf(plan, start, text);
    if (sort !== null && !sorted.has(sort)) sorted.set(sort, text);
  };
  const given = sampleValues(field);
  given.forEach(keep);
  madeTexts(plan).forEach(keep);
  const values = [...new Set([...given, ...sorted.values()])];
  return { texts: values, others: otherFields(plan, start, values), ...unknownOf(plan, start, values) };
}

/** What a sample has written of the value, and what it has wrong by check. */
const sampleValues = ({ component, sample }: PlayedField): string[] =>
  [
    ...sampleTexts(sample?.content[component.anatomy.control?.content ?? 'value'] as SampleText | undefined),
    ...Object.values(sample?.wrong ?? {}),
  ].filter(text => text !== '');

/** The value that a text comes to once it is typed into an empty field; `null` where nothing of it is taken. */
function typedValue(plan: Plan, start: FieldState, text: string): string | null {
  const { put } = acceptedText(plan, { text: '', selection: [0, 0] }, text);
  if (put === '') return null;
  return plan.kind.read?.(put, valueFormatOf(plan, start), '') ?? put;
}

/** By what the machine tells a typed text from others. */
function sortOf(plan: Plan, start: FieldState, text: string): string | null {
  const value = typedValue(plan, start, text);
  if (value === null) return null;
  const state = { ...start, value };
  const failing = firstFailing(plan, state);
  const range = plan.axes.findIndex(({ id }) => id === 'range');
  return `${failing ? `${failing.check.id} ${failing.isOpen}` : ''} ${range < 0 ? '' : combinationAt(plan, state)[range]}`;
}

/** What other fields may hold that this one is compared with: the same, and what is before and behind it. */
function otherFields(plan: Plan, start: FieldState, texts: readonly string[]): string[] {
  const values = texts.flatMap(text => typedValue(plan, start, text) ?? []);
  const own = values.find(value => firstFailing(plan, { ...start, value }) === null) ?? values[0] ?? '1';
  const beside =
    plan.value.kind === 'time' ? ['00:00', '23:59'] : isNumeric(plan) ? ['-1000000', '1000000'] : ['!', '~'];
  return [...new Set(plan.checks.flatMap(fieldsIn))].flatMap(name =>
    [own, ...beside].map(value => `app field:${name}=${value}`),
  );
}

const isNumeric = ({ value: { kind } }: Plan): boolean => KINDS[kind] === numbers;

/** What is known of no value. */
function unknownOf(
  plan: Plan,
  start: FieldState,
  texts: readonly string[],
): Pick<CandidateValues, 'noneRight' | 'noneWrong'> {
  const own = plan.checks.filter(({ kind }) => kind !== 'required' && kind !== 'ask');
  if (!plan.kind.takesText || own.length === 0) return { noneRight: null, noneWrong: null };
  const values = texts.flatMap(text => typedValue(plan, start, text) ?? []);
  const passes = (checks: readonly CheckDocument[], value: string): boolean =>
    firstFailing({ ...plan, checks }, { ...start, value }) === null;
  const never = own.filter(check => !values.some(value => passes([check], value)));
  const isRight = values.some(value => passes(own, value));
  return {
    noneRight: isRight ? null : `no value is known that passes ${named(never.length > 0 ? never : own)}`,
    noneWrong:
      !own.some(check => fieldsIn(check).length > 0) && values.every(value => passes(own, value))
        ? `no value is known that fails ${named(own)}`
        : null,
  };
}

const named = (checks: readonly CheckDocument[]): string => {
  const ids = checks.map(({ id }) => `“${id}”`);
  return ids.length > 1 ? `${ids.slice(0, -1).join(', ')} and ${ids.at(-1)!}` : ids[0]!;
};

/** Made from the kind of value and from the checks, in an order in which the plain ones come first. */
function madeTexts(plan: Plan): string[] {
  const { value, checks } = plan;
  const own = Object.hasOwn(KINDS, value.kind) ? KINDS[value.kind]!(value, boundsOf(plan)) : ['1'];
  const matching = checks.flatMap(({ pattern }) => (pattern === undefined ? [] : textsMatching(pattern)));
  const lengths = [...checks.flatMap(lengthsOf), ...lengthsOf(value)];
  // A text that fits a pattern may be too short for another check: it is written as often as it takes.
  const long = lengths.flatMap(most => ['a', 'A', '1', ...matching].map(text => lengthened(text, most)));
  return [...own, ...long, ...matching, ...textsBeside(matching)];
}

const lengthened = (text: string, length: number): string =>
  [...text.repeat(Math.ceil(length / text.length))].slice(0, length).join('');

/** Lengths on both sides of the ends that something names, in characters. */
function lengthsOf({ length, most }: Pick<CheckDocument, 'length' | 'most'> | ValueDocument): number[] {
  const ends = [
    ...(typeof length === 'object' ? [length.least, length.most] : [length]),
    typeof most === 'object' ? undefined : most,
  ];
  return [...new Set(ends.flatMap(end => (end === undefined ? [] : [end, end - 1, end + 1])))].filter(
    each => each > 0 && each <= 1000,
  );
}

/** Numbers that something is compared with. */
const boundsOf = ({ value, checks }: Plan): number[] =>
  [value, ...checks].flatMap(({ least, most }) =>
    [least, most].flatMap(bound => (typeof bound === 'number' ? [bound] : [])),
  );

/** Numbers at, beside and between ends, and what is no number. */
function numbers({ step = 1 }: ValueDocument, bounds: readonly number[]): string[] {
  const between = bounds.length > 0 ? [(Math.min(...bounds) + Math.max(...bounds)) / 2] : [];
  const around = bounds.flatMap(bound => [bound, bound - step, bound + step]);
  return [...[...around, ...between, 1, 0].map(number => String(Number(number.toPrecision(12)))), 'x'];
}

/** Texts for each kind of value that is not plain text. */
const KINDS: Readonly<Record<string, (value: ValueDocument, bounds: readonly number[]) => string[]>> = {
  count: numbers,
  amount: numbers,
  time: () => ['12:00', '00:00', '23:59', 'x'],
  code: ({ length = 1 }) => ['0', 'a'].flatMap(letter => [letter.repeat(length), letter.repeat(length - 1)]),
};
