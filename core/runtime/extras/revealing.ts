import { placeCaret } from '../field-view';
import type { MakeExtra } from '../extra';

/** A secret that can be shown. The caret and what is selected stay where they are. */
export const revealing: MakeExtra = ({ plan, elements }) => ({
  show({ isRevealed }) {
    const control = elements.control as HTMLInputElement;
    const type = isRevealed ? 'text' : 'password';
    if (!plan.secretType || control.type === type) return undefined;
    const { selectionStart, selectionEnd, selectionDirection } = control;
    control.type = type;
    // Chromium up to 150 keeps a caret only where the field has been laid out anew.
    control.getBoundingClientRect();
    placeCaret(control, selectionStart ?? 0, selectionEnd ?? 0, selectionDirection ?? 'none');
    return undefined;
  },
});
