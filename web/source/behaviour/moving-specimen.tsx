import { useEffect, useLayoutEffect, useRef } from 'react';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import type { Look } from '@periwinkle/core/layout/motion';
import { becomeLike } from '../specimen/become-like';
import { buildField } from '../specimen/build-field';
import type { Shape } from '../specimen/specimen';
import { useSpecimenSheets } from '../specimen/specimen-styles';

/**
 * A specimen on its way from one look to another, by its own transitions: these are held, and moved by hand. It is made once for each pair of looks;
 * an edit of a duration or a curve sets it out anew.
 */
export function MovingSpecimen({
  shape,
  from,
  to,
  at,
  isReduced,
  version,
}: {
  shape: Shape;
  from: Look;
  to: Look;
  /** Where it stands, in ms. */
  at: number;
  /** Whether the person has asked for less motion: then it is there at once. */
  isReduced: boolean;
  /** Something that is another whenever the stylesheets are. */
  version: unknown;
}) {
  const host = useRef<HTMLDivElement>(null);
  const sheets = useSpecimenSheets();
  const animations = useRef<readonly Animation[]>([]);
  const bring = (ms: number): void => {
    for (const animation of animations.current) animation.currentTime = ms;
  };
  const { component, names, icons } = shape;
  // Once the tokens stand on the surface around it: without them nothing would be on its way.
  useEffect(() => {
    const element = host.current!;
    const root = element.shadowRoot ?? element.attachShadow({ mode: 'open' });
    root.adoptedStyleSheets = [sheets.sheetFor(component.id, 'held')];
    const tree = ({ combination, sample }: Look): HTMLElement =>
      buildField(fieldTree({ component, names, icons, sample, combination, mode: 'held', id: 'moving' }));
    const field = tree(from);
    root.replaceChildren(field);
    // Styles are worked out where it sets out, so that there is a way from there.
    void getComputedStyle(field).color;
    for (const part of field.querySelectorAll('*')) void getComputedStyle(part).color;
    becomeLike(field, tree(to));
    animations.current = isReduced ? [] : root.getAnimations();
    if (isReduced) for (const animation of root.getAnimations()) animation.finish();
    for (const animation of animations.current) animation.pause();
    bring(at);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the moment alone moves what is there
  }, [sheets, component, names, icons, from, to, isReduced, version]);
  useLayoutEffect(() => bring(at), [at]);
  return <div ref={host} className="specimen" inert aria-hidden="true" />;
}
