/** Lines stay below this length, where the text has a place to break; a layer and a group rule indent them to 120 at most. */
export const WIDTH = 116;

/** Comment text, a line of it each, wrapped; nothing for none. Nothing in it can end the comment or a style element early. */
export function commentLines(lines: readonly string[], indent: string): string {
  if (lines.length === 0) return '';
  const safe = lines.map(line => line.replace(/\s+/g, ' ').replace(/\*\//g, '* /').replace(/</g, '‹'));
  const wrapped = safe.flatMap(line => wrappedWords(line, WIDTH - indent.length - 6));
  if (wrapped.length === 1) return `${indent}/* ${wrapped[0]!} */\n`;
  return `${wrapped.map((line, index) => `${indent}${index === 0 ? '/*' : '  '} ${line}`).join('\n')} */\n`;
}

function wrappedWords(text: string, width: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(' ')) {
    if (line !== '' && line.length + word.length + 1 > width) {
      lines.push(line);
      line = word;
    } else line = line === '' ? word : `${line} ${word}`;
  }
  return [...lines, line];
}

/**
 * CSS text broken into indented lines: at commas and spaces outside brackets, else inside the longest brackets. White space is
 * equal to white space at all these places. `tail` characters will follow the last line.
 */
export function folded(text: string, indent: string, tail = 0): string[] {
  if (indent.length + text.length + tail < WIDTH) return [indent + text];
  for (const separator of [',', ' ']) {
    const pieces = split(text, separator);
    if (pieces.length < 2) continue;
    return pieces.flatMap((piece, index) => {
      const isLast = index === pieces.length - 1;
      const end = separator === ',' && !isLast ? ',' : '';
      const lines = folded(piece, separator === ' ' && index > 0 ? `${indent}  ` : indent, isLast ? tail : 1);
      return [...lines.slice(0, -1), lines.at(-1)! + end];
    });
  }
  const inner = longestBrackets(text);
  if (!inner) return [indent + text];
  return [
    indent + text.slice(0, inner.from),
    ...folded(text.slice(inner.from, inner.to).trim(), `${indent}  `),
    ...folded(text.slice(inner.to), indent, tail),
  ];
}

/** Splits at a separator that stands outside brackets and strings. */
function split(text: string, separator: string): string[] {
  const pieces: string[] = [];
  let from = 0;
  scan(text, (at, depth) => {
    if (depth === 0 && text[at] === separator) {
      pieces.push(text.slice(from, at).trim());
      from = at + 1;
    }
  });
  return [...pieces, text.slice(from).trim()].filter(piece => piece !== '');
}

function longestBrackets(text: string): { from: number; to: number } | null {
  let best: { from: number; to: number } | null = null;
  let open = 0;
  scan(text, (at, depth) => {
    if (text[at] === '(' && depth === 1) open = at + 1;
    if (text[at] === ')' && depth === 0 && (!best || at - open > best.to - best.from))
      best = { from: open, to: at };
  });
  return best;
}

/** Visits every character outside strings, with the depth of round brackets after it; square brackets count as strings. */
function scan(text: string, visit: (at: number, depth: number) => void): void {
  let depth = 0;
  for (let at = 0; at < text.length; at++) {
    const char = text[at]!;
    if (char === '\\') at++;
    else if (char === '"' || char === '[') at = endOf(text, at, char === '[' ? ']' : '"');
    else {
      if (char === '(') depth++;
      if (char === ')') depth--;
      visit(at, depth);
    }
  }
}

function endOf(text: string, from: number, end: string): number {
  for (let at = from + 1; at < text.length; at++) {
    if (text[at] === '\\') at++;
    else if (end === ']' && text[at] === '"') at = endOf(text, at, '"');
    else if (text[at] === end) return at;
  }
  return text.length;
}
