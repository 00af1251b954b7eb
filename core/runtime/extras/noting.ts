import type { Act } from '../../behaviour/acts';
import type { MakeExtra } from '../extra';

/** Tells of each act as it is done, for whoever notes them, and when all has come of what happened. */
export const noting =
  (onAct: (act: Act) => void, onDone?: () => void): MakeExtra =>
  field => {
    field.on('paste', event => {
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (text !== '') onAct({ kind: 'paste', text });
    });
    return {
      acted: act => onAct(act),
      after: () => onDone?.(),
      /** As acts that is a press, and where a browser selects the whole text, that. */
      entered(part) {
        const { text, selection } = field.state;
        onAct({ kind: 'press', part, entry: null });
        if (text !== '' && selection[0] === 0 && selection[1] === text.length)
          onAct({ kind: 'key', key: 'a', shift: false, control: true, alt: false });
      },
    };
  };
