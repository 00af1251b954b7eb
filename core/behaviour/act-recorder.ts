import { writtenAct, type Act } from './acts';

/** Keys that do something else than write a letter. */
const isLetter = (act: Act): boolean =>
  act.kind === 'key' && [...act.key].length === 1 && !act.control && !act.alt;

/**
 * Notes of what was done, one act more: letters that follow one another are typed together, and what only repeats is left out. Acts are as they are
 * written, so that they can be played.
 */
export function recorded(notes: readonly string[], act: Act, takesText: boolean): readonly string[] {
  const last = notes.at(-1);
  switch (act.kind) {
    // The pointer passes by many things.
    case 'point':
      return notes;
    case 'leave':
      // The key has led out already.
      return last === 'leave' || last === 'key Tab' || last === 'key Shift+Tab' ? notes : [...notes, 'leave'];
    case 'paste':
      // The keys that pasted it are no act of their own.
      return [...(last === 'key Control+v' ? notes.slice(0, -1) : notes), writtenAct(act)];
    case 'key': {
      if (['Shift', 'Control', 'Alt', 'Meta', 'Dead', 'Unidentified', 'Process'].includes(act.key))
        return notes;
      if (!isLetter(act) || !takesText) return [...notes, writtenAct(act)];
      return last?.startsWith('type ')
        ? [...notes.slice(0, -1), last + act.key]
        : [...notes, `type ${act.key}`];
    }
    default:
      return [...notes, writtenAct(act)];
  }
}
