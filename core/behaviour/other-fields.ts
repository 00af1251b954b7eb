import type { CheckDocument } from '../documents/behaviour-document';
import type { Machine } from './machine';
import type { Plan } from './plan';

/** Names of the other fields of the form that a check compares with. */
export const fieldsIn = ({ equals, least, most }: CheckDocument): string[] =>
  [equals, ...[least, most].map(bound => (typeof bound === 'object' ? bound.field : undefined))].filter(
    name => name !== undefined,
  );

/** Another field of the form was left: what is checked against it is judged again. */
export function takeOtherField(machine: Machine, plan: Plan, name: string, value: string): void {
  machine.change({ others: { ...machine.state.others, [name]: value } });
  const { complaint, isApproved } = machine.state;
  const concerned = plan.checks.some(check => fieldsIn(check).includes(name));
  // What has been judged once is judged again; what has not waits for its moment.
  if (concerned && machine.canEdit && (complaint !== null || isApproved)) machine.judge();
}
