/**
 * Makes a tree that is there like another, with what was typed, the focus and every element that stays: elements of one part
 * are the same element.
 */
export function becomeLike(target: Element, source: Element): void {
  for (const { name } of [...target.attributes]) if (!source.hasAttribute(name)) target.removeAttribute(name);
  for (const { name, value } of [...source.attributes]) {
    if (target.getAttribute(name) !== value && name !== 'value') target.setAttribute(name, value);
  }
  if (source.children.length === 0) {
    const isSame = target.children.length === 0 && target.textContent === source.textContent;
    if (!isSame) target.replaceChildren(...source.childNodes);
    return;
  }
  const before = new Set(target.children);
  const after = [...source.children];
  after.forEach((wanted, place) => {
    const own = [...before].find(
      each => each.tagName === wanted.tagName && each.getAttribute('class') === wanted.getAttribute('class'),
    );
    // Each becomes one alone: the paths of a drawing are all called the same.
    if (own) before.delete(own);
    if (own) becomeLike(own, wanted);
    // An element that stays where it is keeps the focus.
    if (target.children[place] !== (own ?? wanted))
      target.insertBefore(own ?? wanted, target.children[place] ?? null);
  });
  while (target.children.length > after.length) target.lastElementChild!.remove();
}
