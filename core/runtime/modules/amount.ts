import { amount } from '../../behaviour/kinds/amount';
import type { ShippedKind } from '../live-field';

export const shipped: ShippedKind = { kind: amount };
