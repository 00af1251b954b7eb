import { toggle } from '../../behaviour/kinds/toggle';
import { toggleView } from '../toggle-view';
import type { ShippedKind } from '../live-field';

export const shipped: ShippedKind = { kind: toggle, control: toggleView };
