import { TEXT } from '../../behaviour/kinds/value-kind';
import type { ShippedKind } from '../attach';

export const shipped: ShippedKind = { kind: TEXT };
