import type { Part } from '../components/anatomy/part';
import type { Component } from '../components/component';
import { drawnParts } from '../cascade/drawn-parts';

/**
 * The box around the control in which a press focuses it: a `label` element, so that no script is needed (HTML, 4.10.4). It is
 * the outermost box around the control that is drawn and holds no label of its own, else the box right around the control;
 * `null` where there is none.
 */
export function pressArea(component: Component): Part | null {
  const { anatomy } = component;
  if (!anatomy.control) return null;
  const drawn = drawnParts(component);
  let nearest: Part | null = null;
  let outermostDrawn: Part | null = null;
  for (let box = anatomy.outer(anatomy.control); box; box = anatomy.outer(box)) {
    if (holdsLabel(box)) break;
    nearest ??= box;
    if (drawn.has(box.name)) outermostDrawn = box;
  }
  return outermostDrawn ?? nearest;
}

const holdsLabel = (part: Part): boolean =>
  part.kind.kind === 'label' || part.children.some(child => holdsLabel(child));
