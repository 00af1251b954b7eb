import { TEXT } from '../../behaviour/kinds/value-kind';
import type { ShippedKind } from '../live-field';

export const shipped: ShippedKind = { kind: { ...TEXT, takesLines: true } };
