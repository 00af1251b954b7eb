import { code } from '../../behaviour/kinds/code';
import type { ShippedKind } from '../attach';

export const shipped: ShippedKind = { kind: code };
