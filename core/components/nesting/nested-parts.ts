import type { Part } from '../anatomy/part';
import type { Nested } from '../component';

/** The tree of a nested component as a part of its parent's: names with the way to them, content as the use says. */
export function nestedRoot(nested: Nested): Part {
  const { title, description } = nested.use.document;
  const root = partIn(nested.component.anatomy.root, nested);
  return {
    ...root,
    title: title ?? nested.component.title,
    description: description ?? nested.component.summary,
  };
}

function partIn(part: Part, nested: Nested): Part {
  const { name, content, use, repeat } = nested;
  return {
    ...part,
    name: `${name}/${part.name}`,
    content: part.content === null ? null : contentOf(part.content, content, repeat),
    children: part.children.map(child => partIn(child, nested)),
    pointer: use.pointer,
    nested: part.nested === null ? name : `${name}/${part.nested}`,
  };
}

/** The parent's key that a nested key shows; in a repeat what is not named comes from the entry, else it shows nothing. */
const contentOf = (key: string, content: Nested['content'], repeat: string | null): string | null =>
  content.get(key) ?? (repeat === null ? null : key);
