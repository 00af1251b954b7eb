import type { Bound } from '../formats/component-document';
import type { Machine } from './machine';
import type { Plan } from './plan';

/** Another field of the form was left: what is checked against it is judged again. */
export function hearOther(machine: Machine, plan: Plan, name: string, value: string): void {
  machine.change({ others: { ...machine.state.others, [name]: value } });
  const { complaint, isApproved } = machine.state;
  const isAbout = (bound: Bound | undefined): boolean => typeof bound === 'object' && bound.field === name;
  const concerned = plan.checks.some(
    ({ equals, least, most }) => equals === name || isAbout(least) || isAbout(most),
  );
  // What has been judged once is judged again; what has not waits for its moment.
  if (concerned && machine.canEdit && (complaint !== null || isApproved)) machine.judge();
}
