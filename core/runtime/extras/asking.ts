import { takeAnswer } from '../../behaviour/application-answers';
import type { MakeExtra } from '../extra';

/** What only the application knows is asked of the page. */
export const asking: MakeExtra = field => ({
  effect(effect) {
    if (effect.kind !== 'ask') return;
    const { ask, value } = effect;
    const answered = (isAccepted: boolean): void => {
      if (!field.signal.aborted && field.state.asking?.value === value)
        field.run(machine => takeAnswer(machine, field.plan, ask, isAccepted));
    };
    const answer = field.options.ask?.(ask, value) ?? true;
    // What could not be asked is not accepted: the field would wait for ever.
    Promise.resolve(answer).then(answered, () => answered(false));
  },
});
