import { lengthOf } from '../content/graphemes';
import type { CheckDocument } from '../formats/component-document';
import type { Effect, FieldState } from './field-state';
import type { Plan } from './plan';
import { VALUE_KINDS, type ValueKind } from './value-kinds';

/** Longest text that a pattern is tried on, in code units: what is longer fails it. */
const MOST_TRIED = 500;

/** Whether a value fails a check that needs nobody's answer. Empty values fail `required` alone. */
const FAILS: Readonly<
  Record<string, (value: string, check: CheckDocument, kind: ValueKind, plan: Plan) => boolean>
> = {
  required: (value, _, kind) => kind.isEmpty(value),
  pattern: (value, { pattern = '' }) => value.length > MOST_TRIED || !new RegExp(pattern, 'u').test(value),
  least: (value, { least }) => typeof least === 'number' && Number(value) < least,
  most: (value, { most }) => typeof most === 'number' && Number(value) > most,
  length: (value, { length = {} }) => {
    const own = lengthOf(value);
    const { least = 0, most = Infinity } =
      typeof length === 'number' ? { least: length, most: length } : length;
    return own < least || own > most;
  },
  kind: (value, _, kind, plan) => kind.misfit(value, plan.value) !== null,
};

/** Kinds of check that the machine knows. */
export const CHECK_KINDS: readonly string[] = [...Object.keys(FAILS), 'ask'];

export const kindOf = (plan: Plan): ValueKind => VALUE_KINDS[plan.value.kind]!;

/** Whether an entry is asked for: as the application says; where no state tells that, as the checks do. */
const isRequired = (plan: Plan, { set }: FieldState): boolean =>
  plan.axes.some(({ id }) => id === 'requirement') ? set['requirement'] === 'required' : true;

/** The first check that fails, or that has to be asked first; `null` where none does. */
export function firstFailing(
  plan: Plan,
  state: FieldState,
): { readonly check: CheckDocument; readonly isOpen: boolean } | null {
  const kind = kindOf(plan);
  const isEmpty = kind.isEmpty(state.value);
  for (const check of plan.checks) {
    if (check.kind === 'required' ? !isRequired(plan, state) : isEmpty) continue;
    if (check.kind === 'ask') {
      const answer = state.answers[check.id];
      if (answer === undefined) return { check, isOpen: true };
      if (!answer) return { check, isOpen: false };
      continue;
    }
    if (FAILS[check.kind]?.(state.value, check, kind, plan)) return { check, isOpen: false };
  }
  return null;
}

export interface Judged {
  readonly state: FieldState;
  readonly effects: readonly Effect[];
}

/** Judges a field whole: complains, approves, or asks what only the application knows. */
export function judged(plan: Plan, state: FieldState): Judged {
  const found = firstFailing(plan, state);
  if (found?.isOpen) {
    const { id, ask = '' } = found.check;
    const asking = { check: id, value: state.value };
    return {
      state: { ...state, complaint: null, isApproved: false, asking },
      effects: [{ kind: 'ask', check: id, ask, value: state.value }],
    };
  }
  return { state: { ...told(plan, state, found?.check ?? null), asking: null }, effects: [] };
}

/** Judges again what is complained of, without asking anybody: the complaint changes or goes. */
export function judgedAgain(plan: Plan, state: FieldState): FieldState {
  const found = firstFailing(plan, state);
  // What only the application knows is neither a mistake nor approved.
  return found?.isOpen
    ? { ...state, complaint: null, isApproved: false }
    : told(plan, state, found?.check ?? null);
}

/** What is said of a field in which a check fails, or none. */
const told = (plan: Plan, state: FieldState, failing: CheckDocument | null): FieldState => ({
  ...state,
  complaint: failing?.id ?? null,
  isApproved: failing === null && plan.judging.approve && !kindOf(plan).isEmpty(state.value),
});
