import { takeOtherField } from '../../behaviour/other-fields';
import type { MakeExtra } from '../extra';
import { formOf, type FormField } from '../form';

/** A field among those of a form. */
export const inForm: MakeExtra = field => {
  const form = formOf(field.control);
  if (!form) return {};
  let waiting: ((isFine: boolean) => void)[] = [];
  const own: FormField = {
    control: field.control,
    get name() {
      return (field.control as HTMLInputElement).name;
    },
    get value() {
      return field.state.value;
    },
    get values() {
      const { value } = field.state;
      return field.controlView?.values?.(value) ?? [value];
    },
    get isDisabled() {
      return field.state.set['availability'] === 'disabled';
    },
    ready() {
      let isFine: boolean | null = null;
      field.run(machine => (isFine = machine.sendable()));
      return isFine ?? new Promise(resolve => waiting.push(resolve));
    },
    reset: () => field.reset(),
    focus: () => field.focus(),
    other: (name, value) => field.run(machine => takeOtherField(machine, field.plan, name, value)),
  };
  form.add(own);
  field.signal.addEventListener('abort', () => form.remove(own));
  return {
    left() {
      if (own.name !== '') form.left(own);
    },
    after(before) {
      if (!before.asking || field.state.asking) return;
      const resolved = waiting;
      waiting = [];
      for (const resolve of resolved) resolve(field.state.complaint === null);
    },
  };
};
