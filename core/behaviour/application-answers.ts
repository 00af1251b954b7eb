import type { Machine } from './machine';
import type { Plan } from './plan';

/** The application has answered what it was asked. */
export function takeAnswer(machine: Machine, plan: Plan, ask: string, isAccepted: boolean): void {
  const { asking, value, isSending, answers } = machine.state;
  const check = plan.checks.find(each => each.id === asking?.check && each.ask === ask);
  // An answer that comes for a value that has changed since is ignored.
  if (!check || asking?.value !== value) return;
  machine.change({ asking: null, isSending: false, answers: { ...answers, [check.id]: isAccepted } });
  if (isSending) machine.send();
  else machine.judge();
}
