import { choice } from '../../behaviour/kinds/choice';
import type { ShippedKind } from '../attach';
import { listView } from '../list-view';

export const shipped: ShippedKind = { kind: choice, list: listView };
