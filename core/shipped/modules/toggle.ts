import { toggle } from '../../behaviour/kinds/toggle';
import type { ShippedKind } from '../attach';

export const shipped: ShippedKind = { kind: toggle };
