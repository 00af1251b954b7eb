import { component } from './component-document';
import type { DocumentKind } from './document-kinds';
import { anything, format, list, object, required, text, written, type Schema } from './shape';
import { system } from './system-document';
import { trial } from './trial-document';

const sources = list(anything);
const setBody = object({ description: text, sources: required(sources), $extensions: anything });
const modifierBody = object({
  description: text,
  default: text,
  contexts: required(written({ type: 'object', additionalProperties: sources.schema, minProperties: 1 })),
  $extensions: anything,
});
const anyOf = (shape: { readonly schema: Schema }) =>
  written({ type: 'object', additionalProperties: shape.schema });

/** Resolver documents: Design Tokens Community Group, resolver module 2025.10. */
const resolver = object({
  $schema: text,
  version: required(format('2025.10')),
  name: text,
  description: text,
  sets: anyOf(setBody),
  modifiers: anyOf(modifierBody),
  resolutionOrder: required(list(anything)),
  $defs: anything,
  $extensions: anything,
});

/** Token files are read by `tokens/`, which reports with more sense than a schema can; here only the outermost shape. */
const tokens = anything;

/** JSON Schemas of our documents. Meaning that a schema cannot say (does that axis exist?) is checked in `checks/`. */
export const SCHEMAS: Partial<Record<DocumentKind, Schema>> = {
  system: system.schema,
  component: component.schema,
  resolver: resolver.schema,
  tokens: tokens.schema,
  trial: trial.schema,
};

/** How validators are made of them; every error knows the schema and the data it is about. */
export const VALIDATION = {
  allErrors: true,
  strict: true,
  allowUnionTypes: true,
  strictRequired: false,
  strictTypes: false,
  verbose: true,
} as const;
