import { choice } from '../../behaviour/kinds/choice';
import type { ShippedKind } from '../live-field';
import { listView } from '../list-view';

export const shipped: ShippedKind = { kind: choice, control: listView };
