import { acceptedText } from '../../behaviour/accepted-text';
import type { MakeExtra } from '../extra';

/** Characters that are not taken, or come beyond the most that there may be: left out, and said to be. */
export const taking: MakeExtra = field => {
  const { plan, elements, options } = field;
  if (!plan.kind.taken && !plan.value.stop) return {};
  const live = elements.root.ownerDocument.createElement('span');
  live.setAttribute('role', 'status');
  live.style.cssText =
    'position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%);white-space:nowrap';
  if (plan.kind.taken) elements.root.append(live);
  field.signal.addEventListener('abort', () => live.remove());
  /** Goes through the browser's own editing, so that it can be undone there. */
  const put = (text: string): boolean =>
    elements.root.ownerDocument.execCommand(text === '' ? 'delete' : 'insertText', false, text);
  field.on('beforeinput', event => {
    if (event.target !== field.control || event.isComposing || !event.inputType.startsWith('insert')) return;
    const added = event.data ?? event.dataTransfer?.getData('text/plain') ?? '';
    const selection = field.selection();
    if (!selection || added === '') return;
    const { value } = field.control as HTMLInputElement;
    const taken = acceptedText(plan, { text: value, selection }, added);
    if (taken.put === added) return;
    event.preventDefault();
    if (taken.put !== '') put(taken.put);
    if (taken.refused !== '') field.run(machine => machine.refuse(taken.refused));
  });
  return {
    /** What was composed stands in the text already; what is not taken of it goes again. */
    composed(added) {
      const control = field.control as HTMLInputElement;
      const [, end] = field.selection() ?? [0, 0];
      const from = end - added.length;
      if (added === '' || control.value.slice(from, end) !== added) return '';
      const before = control.value.slice(0, from) + control.value.slice(end);
      const taken = acceptedText(plan, { text: before, selection: [from, from] }, added);
      if (taken.put === added) return '';
      control.setSelectionRange(from, end);
      put(taken.put);
      return taken.refused;
    },
    /** Read out, and not seen. */
    effect(effect) {
      if (effect.kind !== 'refuse') return;
      const check = plan.checks.find(({ kind }) => kind === 'kind');
      const text = check ? (options.messages?.[check.id] ?? plan.texts[check.id]) : undefined;
      // The same once more has to be another text, to be read out again.
      const said = text ?? plan.notTaken.replace('{text}', effect.text);
      live.textContent = live.textContent === said ? `${said}\u00a0` : said;
    },
  };
};
