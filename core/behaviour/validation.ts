import type { CheckDocument } from '../documents/behaviour-document';
import type { Effect, FieldState } from './field-state';
import type { Fails, Plan } from './plan';

/** Longest text that a pattern is tried on, in code units: what is longer fails it. */
const MOST_TRIED = 500;

/** Kinds of check that look at the entry alone; those that compare it are in `comparing-checks`. */
export const ALONE: Readonly<Record<string, Fails>> = {
  required: ({ kind }, { value }) => kind.isEmpty(value),
  pattern: (_, { value }, { pattern = '' }) =>
    value.length > MOST_TRIED || !new RegExp(pattern, 'u').test(value),
  kind: (plan, { value }) => plan.kind.isMisfit(value, plan.value),
};

/** Whether an entry is asked for: as the application says; where no state tells that, as the checks do. */
const isRequired = (plan: Plan, { set }: FieldState): boolean =>
  plan.axes.some(({ id }) => id === 'requirement') ? set['requirement'] === 'required' : true;

/** The first check that fails, or that has to be asked first; `null` where none does. */
export function firstFailing(
  plan: Plan,
  state: FieldState,
): { readonly check: CheckDocument; readonly isOpen: boolean } | null {
  const isEmpty = plan.kind.isEmpty(state.value);
  for (const check of plan.checks) {
    if (check.kind === 'required' ? !isRequired(plan, state) : isEmpty) continue;
    if (check.kind === 'ask') {
      const answer = state.answers[check.id];
      if (answer === undefined) return { check, isOpen: true };
      if (!answer) return { check, isOpen: false };
      continue;
    }
    if ((ALONE[check.kind] ?? plan.comparing?.[check.kind])?.(plan, state, check))
      return { check, isOpen: false };
  }
  return null;
}

export interface Validated {
  readonly state: FieldState;
  readonly effects: readonly Effect[];
}

/** Judges a field whole: complains, approves, or asks what only the application knows. */
export function validated(plan: Plan, state: FieldState): Validated {
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
export function validatedAgain(plan: Plan, state: FieldState): FieldState {
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
  isApproved: failing === null && plan.judging.approve && !plan.kind.isEmpty(state.value),
});
