import { QUOTAS } from '../json/quotas';
import { format, id, list, narrowed, number, object, required, text, type Of } from './shape';

/** What a system may be called, as a pattern: it stands in addresses. */
export const SYSTEM_ID = '^[a-z][a-z0-9-]{0,63}$';

/** `system.json` (`periwinkle-system/1`). */
export type SystemDocument = Of<typeof system>;
export const system = object({
  format: required(format('periwinkle-system/1')),
  id: required(narrowed(id, { pattern: SYSTEM_ID })),
  title: required(narrowed(text, { maxLength: QUOTAS.titleLetters })),
  subtitle: text,
  /** Begins every class name and custom property. */
  prefix: required(narrowed(text, { pattern: '^[a-z][a-z0-9-]{0,31}$' })),
  /** CSS px that one rem stands for. */
  rootFontSize: number({ exclusiveMinimum: 0, maximum: 1000 }),
  /** Path of the resolver document, from the system's folder. */
  resolver: text,
  /** Colours of the page that fields stand on, as `{token}`: painted where a context is switched. */
  page: object({ surface: text, ink: text }),
  /** Component ids in the reader's order; those not named follow. */
  order: list(id, { called: 'place in the order' }),
});
