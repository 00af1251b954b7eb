import { search } from '../../behaviour/kinds/search';
import type { ShippedKind } from '../live-field';

export const shipped: ShippedKind = { kind: search };
