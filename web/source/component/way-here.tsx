import { Link } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import type { Cell } from '@periwinkle/core/cascade/plates/plate-grid';
import { useCarried } from '../data/address';
import { SHOWN, shownText } from '../data/shown-address';
import { useStore } from '../data/system-context';

/** Leads from a specimen to the shortest acts by which one gets there. */
export function WayHere({ component, cell }: { component: Component; cell: Cell }) {
  const { id } = useStore();
  const carried = useCarried();
  const shown = shownText(component, cell.combination) ?? '';
  return (
    <Link
      className="act"
      to={`/${id}/${component.id}/behaviour${carried}${carried ? '&' : '?'}${SHOWN}=${shown}`}
    >
      how does one get here?
    </Link>
  );
}
