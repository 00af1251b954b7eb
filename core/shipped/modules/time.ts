import { time } from '../../behaviour/kinds/time';
import type { ShippedKind } from '../attach';

export const shipped: ShippedKind = { kind: time };
