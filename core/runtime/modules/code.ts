import { code } from '../../behaviour/kinds/code';
import type { ShippedKind } from '../live-field';

export const shipped: ShippedKind = { kind: code };
