import { withLimitsApplied } from '../space/apply-limits';
import type { FieldState } from './field-state';
import type { Plan } from './plan';

/** What each state of the catalogue follows from; `undefined` where the application has the word. */
const FOLLOWS: Readonly<Record<string, (plan: Plan, state: FieldState) => string | undefined>> = {
  pointer: ({ targets }, { pointer: { part, isDown } }) => {
    const target = part === null ? undefined : targets[part];
    const isOver = target?.kind === 'control' || (target?.kind === 'button' && target.isInFrame);
    return isOver ? (isDown ? 'down' : 'over') : 'away';
  },
  focus: (_, { focus }) => (focus === null ? 'out' : focus.isVisible ? 'keyboard' : 'in'),
  // Where a text stands that comes to no value, as “-” in a number, a browser takes it to be filled (`:placeholder-shown`).
  content: (plan, { value, text }) =>
    plan.kind.isEmpty(value) && !(plan.kind.takesText && text !== '') ? 'empty' : 'filled',
  validity: (_, { complaint, isApproved }) =>
    complaint !== null ? 'invalid' : isApproved ? 'valid' : 'none',
  availability: (_, { asking, set }) => (asking ? 'busy' : set['availability']),
  selection: ({ value: { kind } }, { value }) =>
    kind === 'toggle' ? (value === 'true' ? 'selected' : 'unselected') : undefined,
  range: ({ value: { kind, least, most } }, { value }) => {
    if (kind !== 'count' || value === '') return undefined;
    if (typeof least === 'number' && Number(value) <= least) return 'min';
    return typeof most === 'number' && Number(value) >= most ? 'max' : 'within';
  },
  disclosure: ({ kind }, { isOpen }) => (kind.list ? (isOpen ? 'open' : 'closed') : undefined),
  secret: (_, { isRevealed }) => (isRevealed ? 'shown' : 'masked'),
  autofill: (_, { isAutofilled }) => (isAutofilled ? 'yes' : 'no'),
};

/** The combination that a field is in, after the limits: value indices of its own axes. */
export function combinationAt(plan: Plan, state: FieldState): readonly number[] {
  const raw = plan.axes.map(({ id, kind, values, rest }) => {
    const follows = kind === 'state' && Object.hasOwn(FOLLOWS, id) ? FOLLOWS[id]!(plan, state) : undefined;
    const place = values.indexOf(follows ?? state.set[id] ?? '');
    return place >= 0 ? place : rest;
  });
  return withLimitsApplied(raw, plan.limits);
}
