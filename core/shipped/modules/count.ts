import { count } from '../../behaviour/kinds/count';
import type { ShippedKind } from '../attach';

export const shipped: ShippedKind = { kind: count };
