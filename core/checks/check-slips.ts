import { INPUT_TYPES } from '../components/anatomy/input-types';
import type { PartRole } from '../behaviour/plan-data';
import { isEmpty } from '../space/box';
import { shownKeys } from '../components/content-keys';
import type { Component } from '../components/component';
import type { BehaviourDocument, CheckDocument } from '../documents/behaviour-document';
import { pointer } from '../json/json';
import { brief, ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';

/** Slips of authors: what is right by itself, and does nothing or not what was meant. Each is worth a look, none stops anything. */
export function slips(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  controls(component, problems);
  openDefaults(component, problems);
  const { behaviour } = component.document;
  if (behaviour) behaviourSlips(component, behaviour, problems);
  idleSituations(component, problems);
  return problems.problems;
}

function controls({ anatomy, document }: Component, problems: ProblemList): void {
  const own = anatomy.parts.filter(({ kind, nested }) => kind.kind === 'control' && nested === null);
  own
    .slice(1)
    .forEach(part =>
      problems.warning(
        `${part.pointer}/kind`,
        'two-controls',
        `“${part.name}” is a second control: label, states and behaviour belong to “${own[0]!.name}” alone.`,
      ),
    );
  for (const { pointer: at, type, elements } of own) {
    if (type === null || !elements.includes('input')) continue;
    if (!INPUT_TYPES.includes(type))
      problems.warning(
        `${at}/type`,
        'unknown-type',
        `HTML has no input of type “${brief(type)}”; browsers take it for text.`,
        nearest(type, INPUT_TYPES),
        type,
      );
    const kind = document.behaviour?.value?.kind;
    if ((type === 'checkbox' || type === 'radio') && kind !== undefined && kind !== 'toggle')
      problems.warning(`${at}/type`, 'unfit-type', `A ${type} holds no ${kind}, only whether it is chosen.`);
  }
}

/** Options that leave it to the order of their values which one holds where nothing is chosen. */
function openDefaults({ document }: Component, problems: ProblemList): void {
  // A list that stands for one of the base keeps the default of that.
  if (document.extends) return;
  (document.axes ?? []).forEach(({ id, kind, values = [], default: preset }, index) => {
    const [first] = values;
    if (kind !== 'option' || preset !== undefined || !first || values.length < 2) return;
    problems.warning(
      pointer('axes', index),
      'no-default',
      `“${brief(id)}” says no default: its first value, “${brief(first.id)}”, holds where nothing is chosen, and another as soon as their order changes.`,
    );
  });
}

/** Situations that no combination is in. */
function idleSituations({ situations, space }: Component, problems: ProblemList): void {
  situations.forEach(({ title, region }, index) => {
    if (isEmpty(region) || space.count(region) > 0n) return;
    problems.warning(
      `${pointer('situations', index)}/when`,
      'idle-situation',
      `“${brief(title)}” never comes about: no combination that the limits allow is in it.`,
    );
  });
}

/** Kinds of value that have an order. */
const STEPS: readonly PartRole[] = ['less', 'more'];
const ORDERED: readonly string[] = ['count', 'amount', 'time'];
/** What some check refuses of it; a pattern that takes all of them takes everything. */
const ANYTHING: readonly string[] = [
  'a',
  'A',
  '1',
  ' ',
  '-',
  '!',
  'é',
  '北',
  'ab 12',
  'x'.repeat(99),
  '.',
  '@',
];

function behaviourSlips(component: Component, behaviour: BehaviourDocument, problems: ProblemList): void {
  const { value, checks = [] } = behaviour;
  const kind = value?.kind ?? 'text';
  if (value?.least !== undefined && !ORDERED.includes(kind))
    problems.warning(
      '/behaviour/value/least',
      'idle-member',
      `A ${brief(kind)} has no order, so that nothing is less than ${value.least}.`,
    );
  if (value && ORDERED.includes(kind)) unjudgedBounds(value, checks, problems);
  const steps = behaviour.parts ?? {};
  if (kind === 'count' && !STEPS.some(role => Object.hasOwn(steps, role)))
    problems.warning(
      '/behaviour/value',
      'no-buttons',
      `A count has buttons for one less and one more; “parts” names them. Without, only whoever knows the arrow keys can step it.`,
    );
  if (kind === 'code' && value?.length === undefined)
    problems.warning(
      '/behaviour/value',
      'missing-member',
      'A code says of how many characters it is; without, nobody knows when it is whole.',
    );
  const keys = new Set([
    ...shownKeys(component),
    ...(component.document.content ?? []).map(({ id }) => id),
    ...component.samples.flatMap(({ content }) => Object.keys(content)),
  ]);
  checks.forEach((check, index) =>
    checkSlips(check, kind, keys, `/behaviour${pointer('checks', index)}`, problems),
  );
}

/** Bounds of a value that no check says anything of. */
function unjudgedBounds(
  value: NonNullable<BehaviourDocument['value']>,
  checks: readonly CheckDocument[],
  problems: ProblemList,
): void {
  // That nothing lies between them is told elsewhere.
  if (Number(value.least) > Number(value.most)) return;
  for (const bound of ['least', 'most'] as const) {
    if (value[bound] === undefined || checks.some(check => check.kind === bound)) continue;
    problems.warning(
      `/behaviour/value/${bound}`,
      'idle-bound',
      `Nothing judges what is ${bound === 'least' ? 'less' : 'more'} than ${brief(value[bound])}: steps keep to it, and whatever is typed is taken. A check of kind “${bound}” would say so.`,
    );
  }
}

function checkSlips(
  { kind, least, most, pattern, message }: CheckDocument,
  of: string,
  keys: ReadonlySet<string>,
  at: string,
  problems: ProblemList,
): void {
  const bound = kind === 'least' ? least : kind === 'most' ? most : undefined;
  if (typeof bound === 'number' && !ORDERED.includes(of))
    problems.warning(
      `${at}/${kind}`,
      'idle-member',
      `A ${brief(of)} has no order to compare with ${bound}; “length” counts characters.`,
    );
  if (pattern !== undefined && takesEverything(pattern))
    problems.warning(
      `${at}/pattern`,
      'idle-pattern',
      'This pattern takes everything, so the check never fails.',
    );
  // What is no word is what the check says itself.
  if (message !== undefined && /^[a-z][\w-]*$/.test(message) && !keys.has(message))
    problems.warning(
      `${at}/message`,
      'unknown-content',
      `Nobody has a text “${brief(message)}”: neither the content nor a sample.`,
      nearest(message, keys),
      message,
    );
}

function takesEverything(pattern: string): boolean {
  try {
    const tried = new RegExp(pattern, 'u');
    return ANYTHING.every(text => tried.test(text));
  } catch {
    // A check says what is wrong with it.
    return false;
  }
}
