import type { Anatomy } from './anatomy/anatomy';
import { hostAndPseudo } from './anatomy/pseudo-parts';
import type { RuleDocument } from '../documents/component-document';
import { pointer } from '../json/json';
import { QUOTAS } from '../json/quotas';
import { ObjectMemo } from '../json/object-memo';
import { brief, oneOf, ProblemList, type LocalProblem } from '../json/problem';
import { nearest } from '../text/suggestions';
import { readCondition } from '../space/condition';
import type { Space } from '../space/space';
import { valueType } from '../css/value-types';
import type { Property } from '../css/property';
import type { Rule, Setting } from './component';
import type { Parameters } from './parameter';
import { asTokens, isParameterType, parametersIn, standsForValue, withDefaults } from './parameters';
import { propertyNamed } from '../css/property-registry';
import { readPropertyOn } from './property-on-part';
import { reportDuplicateIds } from './duplicate-ids';
import { readValue, sharedOut, tokenOf } from '../css/value-syntax';

const NO_RULES: readonly RuleDocument[] = [];

/** What rules speak of. */
export interface Surroundings {
  readonly anatomy: Anatomy;
  readonly space: Space;
  readonly parameters: Parameters;
}

interface ReadRules {
  readonly rules: readonly Rule[];
  readonly problems: readonly LocalProblem[];
}
const lists = new ObjectMemo<ReadRules>();

/**
 * Reads rules; one whose condition cannot be read is reported and left out, a value likewise. The same documents over the same
 * anatomy and space give the same list, by which others know that nothing has changed.
 */
export function readRules(
  documents: readonly RuleDocument[] = NO_RULES,
  around: Surroundings,
  problems: ProblemList,
): readonly Rule[] {
  const { anatomy, space, parameters } = around;
  const read = lists.of([documents, anatomy, space, parameters], () => readList(documents, around));
  problems.take(read.problems);
  return read.rules;
}

function readList(documents: readonly RuleDocument[], around: Surroundings): ReadRules {
  const problems = new ProblemList();
  reportDuplicateIds(
    documents.map(rule => rule.id),
    'rules',
    problems,
  );
  const rules = documents.flatMap((document, index) => {
    if (problems.problems.length > QUOTAS.problemsFound) return [];
    const read = readOnce(document, index, around);
    problems.take(read.problems);
    return read.rule ?? [];
  });
  if (problems.problems.length > QUOTAS.problemsFound)
    problems.error(
      pointer('rules'),
      'too-many-problems',
      'So much is wrong in these rules that not all of them were looked at.',
    );
  return { rules, problems: problems.problems };
}

interface ReadRule {
  readonly rule: Rule | null;
  readonly problems: readonly LocalProblem[];
}
/** By place in the list. */
const known = new ObjectMemo<Map<number, ReadRule>>();

/** A rule whose document, place and surroundings are the same is the same rule, and is not read again. */
function readOnce(document: RuleDocument, index: number, around: Surroundings): ReadRule {
  const { anatomy, space, parameters } = around;
  const byPlace = known.of([anatomy, space, parameters, document], () => new Map<number, ReadRule>());
  let read = byPlace.get(index);
  if (!read) {
    const problems = new ProblemList();
    read = { rule: readRule(document, index, around, problems), problems: problems.problems };
    byPlace.set(index, read);
  }
  return read;
}

function readRule(
  document: RuleDocument,
  index: number,
  around: Surroundings,
  problems: ProblemList,
): Rule | null {
  const { space } = around;
  const at = pointer('rules', index);
  const region = readCondition(document.when, space.axes, `${at}/when`, problems);
  const written = readSettings(document, at, around, problems);
  if (!region) return null;
  const settings = withoutOverwritten(written.flatMap(takenApart), at, problems);
  return { id: document.id, index, region, settings, written, note: document.note ?? '' };
}

const partNames = new ObjectMemo<readonly string[]>();
/** The same list for the same anatomy, in which what is misspelt is soon found. */
const namesIn = (anatomy: Anatomy): readonly string[] =>
  partNames.of([anatomy], () => Object.freeze([...anatomy.byName.keys()]));

function readSettings(
  document: RuleDocument,
  at: string,
  { anatomy, parameters }: Surroundings,
  problems: ProblemList,
): Setting[] {
  return Object.entries(document.set).flatMap(([name, properties]) => {
    const here = `${at}/set${pointer(name)}`;
    const found = anatomy.byName.get(name);
    if (!found) {
      if (isLost(name, anatomy)) return [];
      const names = namesIn(anatomy);
      const [host] = hostAndPseudo(name);
      problems.error(
        here,
        'unknown-part',
        `There is no part “${brief(name)}” here; there is ${oneOf(names, 12)}.`,
        nearest(name, names),
        anatomy.byName.has(host) ? name : host,
      );
      return [];
    }
    return Object.entries(properties).flatMap(([written, text]) => {
      const property = readPropertyOn(found, written);
      if (!property.ok) {
        problems.error(here + pointer(written), property.code, property.message, property.suggestion);
        return [];
      }
      const named = parametersIn(text);
      const fault = named.length === 0 ? null : parameterFault(text, property.property, parameters);
      if (fault) {
        const { code, message, suggestion, about } = fault;
        problems.error(here + pointer(written), code, message, suggestion, about);
        return [];
      }
      const value = readValue(property.property, withDefaults(text, parameters));
      if (!value.ok) {
        // That what a parameter stands for is no value of its type is told where it stands.
        if (!named.every(key => standsForValue(key, parameters))) return [];
        const how = named.length > 0 ? 'With what its parameters stand for: ' : '';
        problems.error(here + pointer(written), value.code, how + value.message, value.suggestion);
        return [];
      }
      const setting = {
        part: found.name,
        property: property.property,
        text,
        value: value.value,
        written,
        writtenPart: name,
      };
      return [
        named.length === 0 ? setting : { ...setting, ...forStylesheets(property.property, asTokens(text)) },
      ];
    });
  });
}

/** What is wrong with the parameters that a text names. */
function parameterFault(
  text: string,
  property: Property,
  parameters: Parameters,
): { code: string; message: string; suggestion?: string | undefined; about?: string } | null {
  const named = parametersIn(text);
  const missing = named.find(key => !parameters.has(key));
  if (missing !== undefined) {
    const keys = [...parameters.keys()];
    const message = `There is no parameter “${brief(missing)}” here; there is ${oneOf(keys, 12)}.`;
    return { code: 'unknown-parameter', message, suggestion: nearest(missing, keys), about: missing };
  }
  const [key] = named as [string];
  const { type } = parameters.get(key)!.document;
  const { tokenTypes, calc } = valueType(property.kind);
  // In a calculation it is its measure that counts, which is checked with what it comes to.
  const fits = text.trim() === `@${key}` ? tokenTypes.includes(type) : calc.length > 0;
  if (fits || !isParameterType(type)) return null;
  const wanted = tokenTypes.length > 0 ? `takes ${oneOf(tokenTypes)}` : 'takes no parameter';
  return { code: 'wrong-type', message: `@${key} is a ${type}; ${property.name} ${wanted}.` };
}

/** A text with parameters in the place of tokens, and what a stylesheet reads in it. */
export function forStylesheets(
  property: Property,
  parametered: string,
): Pick<Setting, 'parametered' | 'css'> {
  const css = readValue(property, parametered);
  return css.ok ? { parametered, css: css.value } : {};
}

/** Whether a part would be in a nested component that is not there, which has been told. */
const isLost = (name: string, { lost }: Anatomy): boolean => lost.has(name.split('/')[0]!);

/** Of what a rule says twice of one property, by name and in a composite or shorthand, the later counts. */
function withoutOverwritten(settings: readonly Setting[], at: string, problems: ProblemList): Setting[] {
  return settings.filter((setting, place) => {
    const again = settings
      .slice(place + 1)
      .find(
        other =>
          other.part === setting.part &&
          (other.property === setting.property || other.property.longhands.includes(setting.property.name)),
      );
    // A composite first and a member after it is how one departs from a composite.
    if (again && again.written !== setting.written && setting.written === setting.property.name) {
      problems.warning(
        at + pointer('set', setting.part, setting.written),
        'said-twice',
        `“${again.written}” after it says ${setting.property.name} again; put it first.`,
      );
    }
    return !again;
  });
}

/** A composite as settings of its members, several values as settings of the sides they are for; anything else as it is. */
export function takenApart(setting: Setting): Setting[] {
  const { property, value } = setting;
  if (value.kind === 'literal') {
    const shares = sharedOut(property, value.css);
    return shares
      ? [...shares].map(([name, text]) => ({
          ...setting,
          text,
          property: propertyNamed(name)!,
          value: { kind: 'literal', text, css: text },
        }))
      : [setting];
  }
  const key = tokenOf(value);
  if (property.members.length === 0 || key === null) return [setting];
  return property.members.map(member => ({
    ...setting,
    property: propertyNamed(member.property)!,
    value: { kind: 'member', text: setting.text, key, member },
  }));
}
