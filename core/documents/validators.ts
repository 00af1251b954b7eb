import Ajv, { type ValidateFunction } from 'ajv';
import type { DocumentKind } from './document-kinds';
import { SCHEMAS, VALIDATION } from './schemas';

const ajv = new Ajv(VALIDATION);
const validators = new Map<DocumentKind, ValidateFunction>();

/** The validator of a kind of document, compiled when it is first asked for. The command line has this module compiled when built. */
export function validatorFor(kind: DocumentKind): ValidateFunction | undefined {
  const schema = SCHEMAS[kind];
  if (schema && !validators.has(kind)) validators.set(kind, ajv.compile(schema));
  return validators.get(kind);
}
