import { count } from '../../behaviour/kinds/count';
import type { ShippedKind } from '../live-field';

export const shipped: ShippedKind = { kind: count };
