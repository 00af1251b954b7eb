import type { AttachOptions } from '../page-field';
import { LiveField, type AttachedField, type ShippedKind } from '../live-field';
import type { ShippedPlan } from '../shipped-plan';

/** Brings the shipped markup of a field to life: what every field's script needs. */
export const attachWith = (
  plan: ShippedPlan,
  kind: ShippedKind,
  root: HTMLElement,
  options: AttachOptions = {},
): AttachedField => new LiveField(plan, kind, root, options);
