import { amount } from '../../behaviour/kinds/amount';
import type { ShippedKind } from '../attach';

export const shipped: ShippedKind = { kind: amount };
