import { time } from '../../behaviour/kinds/time';
import type { ShippedKind } from '../live-field';

export const shipped: ShippedKind = { kind: time };
