import { propertyNamed } from '../css/property-registry';
import { valueType } from '../css/value-types';

/** What a property of a part comes to that is not there, by what it is measured in. */
export function nothingOf(property: string): string {
  const row = propertyNamed(property);
  const [dimension] = row ? valueType(row.kind).calc : [];
  return dimension === 'time' ? '0s' : dimension === 'number' ? '0' : '0px';
}
