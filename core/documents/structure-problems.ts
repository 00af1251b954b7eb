import type { ErrorObject } from 'ajv';
import { documentKind, type DocumentKind } from './document-kinds';
import { tooLarge } from '../json/document-size';
import { pointer } from '../json/json';
import { ObjectMemo } from '../json/object-memo';
import { brief, oneOf, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';
import { validatorFor } from './validators';

/**
 * Compares a document's shape with the schema of its kind. A document that passes can be read by the rest of the core
 * without further care; one that does not must not reach it.
 */
export function structureProblems(path: string, document: unknown): readonly LocalProblem[] {
  const row = documentKind(path);
  if (!row) {
    return [
      {
        pointer: '',
        severity: 'error',
        code: 'unknown-file',
        message: `“${path}” is no document of a system.`,
      },
    ];
  }
  if (!row.json) {
    return typeof document === 'string'
      ? []
      : [{ pointer: '', severity: 'error', code: 'wrong-type', message: 'This document is text.' }];
  }
  // The same document object has been looked at before, as every one but the edited has.
  return typeof document === 'object' && document !== null
    ? shapes.of([document], () => shapeProblems(row.kind, document))
    : shapeProblems(row.kind, document);
}

const shapes = new ObjectMemo<readonly LocalProblem[]>();

function shapeProblems(kind: DocumentKind, document: unknown): readonly LocalProblem[] {
  const { problems: large, rest } = tooLarge(kind, document);
  const validate = validatorFor(kind);
  if (!rest || !validate || validate(rest.document)) return large;
  const problems = (validate.errors ?? [])
    .filter(error => !SUMMARIES.has(error.keyword))
    .map(asProblem)
    // Of what is too large nothing else is said.
    .filter(
      ({ pointer: at }) => !large.some(each => at === each.pointer || at.startsWith(`${each.pointer}/`)),
    );
  // What holds of a component without a base is said after what holds of all, and more closely.
  return [
    ...large,
    ...new Map(problems.map(problem => [`${problem.pointer} ${problem.code}`, problem])).values(),
  ];
}

/** Keywords that only say again that something inside them does not hold. */
const SUMMARIES: ReadonlySet<string> = new Set(['propertyNames', 'if']);

const TYPE_WORDS: Record<string, string> = {
  string: 'text',
  number: 'a number',
  integer: 'a whole number',
  array: 'a list',
  object: 'an object',
  boolean: 'true or false',
  null: 'null',
};

/** One row per schema keyword: which code, which words, what suggestion. */
const WORDING: Record<string, (error: ErrorObject) => Omit<LocalProblem, 'pointer' | 'severity'>> = {
  additionalProperties: error => {
    const written = String(error.params['additionalProperty']);
    const known = Object.keys((error.parentSchema?.['properties'] as object | undefined) ?? {});
    const suggestion = nearest(written, known);
    return {
      code: 'unknown-key',
      message: `“${written}” is not known here; there can be ${oneOf(known, 12)}.`,
      ...(suggestion ? { suggestion } : {}),
    };
  },
  required: error => ({
    code: 'missing-key',
    message: `“${String(error.params['missingProperty'])}” is missing.`,
    about: String(error.params['missingProperty']),
  }),
  type: error => {
    const wanted = [error.params['type'] as string | string[]].flat();
    return {
      code: 'wrong-type',
      message: `This must be ${oneOf(wanted.map(type => TYPE_WORDS[type] ?? type))}.`,
    };
  },
  enum: error => {
    const allowed = (error.params['allowedValues'] as unknown[]).map(String);
    const suggestion = nearest(error.data, allowed);
    return {
      code: 'unknown-value',
      message: `“${brief(error.data)}” is not known here; it can be ${oneOf(allowed)}.`,
      ...(suggestion ? { suggestion } : {}),
    };
  },
  maxItems: error => ({
    code: 'too-many',
    message: `There can be ${String(error.params['limit'])} here at most; these are ${(error.data as unknown[]).length}.`,
  }),
  maxLength: error => ({
    code: 'too-long',
    message: `This can have ${String(error.params['limit'])} letters at most.`,
  }),
  const: error => ({
    code: 'unknown-value',
    message: `This must be “${String(error.params['allowedValue'])}”.`,
    suggestion: String(error.params['allowedValue']),
  }),
  pattern: error => ({
    code: 'bad-name',
    message: `“${brief(error.data)}” cannot be a name: it begins with a letter and holds letters, digits, - and _.`,
  }),
};

function asProblem(error: ErrorObject): LocalProblem {
  const extra =
    error.keyword === 'additionalProperties' ? pointer(String(error.params['additionalProperty'])) : '';
  // A name that is no name is reported by Ajv on the object; the place people look for is the member itself.
  const named = error.propertyName === undefined ? '' : pointer(error.propertyName);
  const wording = WORDING[error.keyword]?.(error) ?? {
    code: 'wrong-shape',
    message: `This ${error.message ?? 'is not right'}.`,
  };
  return { pointer: error.instancePath + named + extra, severity: 'error', ...wording };
}
