/** Every type of input that HTML has (HTML, 4.10.5). */
export const INPUT_TYPES: readonly string[] = (
  'text search tel url email password date month week time datetime-local number range color checkbox radio file hidden ' +
  'submit image reset button'
).split(' ');
