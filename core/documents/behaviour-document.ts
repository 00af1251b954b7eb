import { condition, settings } from './condition-shapes';
import {
  choice,
  defines,
  flag,
  id,
  integer,
  list,
  mapOf,
  number,
  object,
  refersTo,
  required,
  text,
  vital,
  written,
  type Of,
} from './shape';

/** An act of somebody, or what a move does. */
const act = written<string>({ type: 'string' }, (words, { names }) => names.act(words));

const partPath = written<string>({ type: 'string' }, (path, { names }) => names.path(path));

/** The kind of value that a field holds, and within which ends. */
export type ValueDocument = Of<typeof value>;
const value = object({
  kind: required(text),
  least: number(),
  /** Of texts, in characters. */
  most: number(),
  /** Whether nothing can be entered beyond `most`. */
  stop: flag,
  step: number({ exclusiveMinimum: 0 }),
  length: integer({ minimum: 1, maximum: 64 }),
  of: text,
  several: flag,
});

/** A number, or the value of another field of the form, by its name. */
export type Bound = number | { readonly field: string };
const bound = written<Bound>({
  type: ['number', 'object'],
  properties: { field: { type: 'string' } },
  required: ['field'],
  additionalProperties: false,
});

/** In characters: exactly so many, or between two numbers. */
const length = written<number | { readonly least?: number; readonly most?: number }>({
  type: ['integer', 'object'],
  minimum: 0,
  properties: { least: { type: 'integer', minimum: 0 }, most: { type: 'integer', minimum: 0 } },
  additionalProperties: false,
});

/** What makes an entry wrong. */
export type CheckDocument = Of<typeof check>;
const check = object({
  id: required(id),
  kind: required(text),
  pattern: text,
  least: bound,
  most: bound,
  length,
  /** Name of another field of the form. */
  equals: text,
  /** What the application is asked. */
  ask: text,
  /** Key of the content that says what is wrong. */
  message: refersTo('content'),
  because: text,
});

const COMPLAINING = ['leaving', 'sending', 'typing'] as const;
const FORGIVING = ['typing', 'leaving', 'sending'] as const;

/** When a field complains, when it takes that back, and whether it approves. */
export type JudgingDocument = Of<typeof judging>;
const judging = object({ complain: choice(COMPLAINING), forgive: choice(FORGIVING), approve: flag });

/** What an act does beyond what the kind of value knows. */
export type MoveDocument = Of<typeof move>;
const move = object({
  id: required(id),
  on: required(act),
  when: vital(condition),
  do: required(list(act, { least: 1 })),
  because: text,
});

/** How a field comes into its states. */
export type BehaviourDocument = Of<typeof behaviour>;
export const behaviour = object({
  value,
  /** By what they do (`reveal`, `less`): parts. */
  parts: mapOf(partPath),
  checks: list(check, { called: 'check' }),
  judging,
  moves: list(move, { called: 'move' }),
});

/** Acts in their order, to be played. */
export type WalkthroughDocument = Of<typeof walkthrough>;
export const walkthrough = object({
  id: required(defines('walkthrough')),
  title: text,
  sample: refersTo('sample', id),
  set: settings,
  acts: required(list(act, { goesWith: 'any' })),
  shows: text,
});
