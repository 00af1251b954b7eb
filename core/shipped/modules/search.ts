import { search } from '../../behaviour/kinds/search';
import type { ShippedKind } from '../attach';

export const shipped: ShippedKind = { kind: search };
