import { admitted } from '../../behaviour/admitted';
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
  field.on('beforeinput', event => {
    if (event.target !== field.control || event.isComposing || !event.inputType.startsWith('insert')) return;
    const added = event.data ?? event.dataTransfer?.getData('text/plain') ?? '';
    const selection = field.selection();
    if (!selection || added === '') return;
    const { put, refused } = admitted(
      plan,
      { text: (field.control as HTMLInputElement).value, selection },
      added,
    );
    if (put === added) return;
    event.preventDefault();
    // Goes through the browser's own editing, so that it can be undone there.
    if (put !== '') elements.root.ownerDocument.execCommand('insertText', false, put);
    if (refused !== '') field.run(machine => machine.refuse(refused));
  });
  return {
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
