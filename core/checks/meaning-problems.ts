import { documentKind, documentsOf } from '../documents/document-kinds';
import { pointer } from '../json/json';
import { UNREADABLE } from '../documents/sound-part';
import { brief, inFile, oneOf, ProblemList, type LocalProblem, type Problem } from '../json/problem';
import { iconProblems } from '../render/icon';
import { tokenNameProblems } from '../output/tokens/token-names';
import { silencedStates } from '../cascade/questions/silenced-states';
import { deadRules } from '../cascade/questions/dead-rules';
import { TangledRules } from '../cascade/winning-rules';
import type { Component } from '../components/component';
import { QUOTAS } from '../json/quotas';
import { ObjectMemo } from '../json/object-memo';
import { Suggestions } from '../text/suggestions';
import type { TokenModel } from '../tokens/token-model';
import type { TokenSet } from '../tokens/token-set';
import { tokensIn } from '../css/value-syntax';
import type { System } from '../components/system';
import { behaviourProblems } from './check-behaviour';
import { contextProblems } from './check-contexts';
import { cycleProblems } from './check-cycles';
import { expansionProblems } from './check-expansion';
import { contentProblems } from './check-content';
import { parameterProblems } from './check-parameters';
import { reachingInProblems } from './check-reaching-in';
import { comparisonSlips, trialProblems } from './check-trials';
import { sampleSlips } from './check-samples';
import { idleSlips } from './idle-slips';
import { unlabelledControls } from './unlabelled-controls';
import { slips } from './check-slips';
import { valueSlips } from './value-slips';
import { settingPointer, valueProblems } from './check-values';
import { isWrittenHere } from './written-here';
import { atOrigins } from './problem-origins';

/** Everything that structure alone cannot tell, where it was written. What was found of a part that has not changed since is not looked for again. */
export function meaningProblems(system: System): Problem[] {
  const ofComponents = new Map(
    system.components.map(component => [
      component,
      [
        ...component.problems,
        ...valuesInAllContexts(component, system),
        ...sampleProblems(component, system),
        ...contentProblems(component),
        ...behaviourProblems(component),
        ...slipsOf(component),
        ...idleSlips(component).filter(({ pointer: at }) => isWrittenHere(component, at)),
        ...parameterProblems(component, system.tokens.usual(), system.prefix),
        ...regionProblems(component),
      ],
    ]),
  );
  const others = [
    ...tokenProblems(system),
    ...twinComponents(system),
    ...fileNameSlips(system),
    ...unlabelledControls(system),
    ...orderSlips(system),
    ...trialProblems(system),
    ...comparisonSlips(system),
    ...[...system.icons].flatMap(([name, svg]) => inFile(`icons/${name}.svg`, iconProblems(svg))),
  ];
  return [
    ...others.map(problem => ({ ...problem, ...system.origin(problem) })),
    ...system.expansionProblems,
    ...atOrigins(system, ofComponents),
  ];
}

function tokenProblems(system: System): Problem[] {
  return [
    ...system.tokens.problems(),
    ...tokenNameProblems(system),
    ...contextProblems(system),
    ...pageProblems(system),
  ];
}

/** Colours of the page that are no tokens. */
function pageProblems({ page, tokens }: System): Problem[] {
  const { byKey, unresolved } = tokens.usual();
  return (['surface', 'ink'] as const).flatMap(name => {
    const key = page[name];
    const token = key === null ? undefined : byKey.get(key);
    if (key === null || token?.type === 'color' || unresolved.has(key)) return [];
    const list = new ProblemList();
    const near = token
      ? undefined
      : new Suggestions([...byKey.values()].flatMap(each => (each.type === 'color' ? each.key : []))).nearest(
          key,
        );
    const fault = token ? `{${key}} is a ${token.type}, no color.` : `There is no token {${key}}.`;
    list.error(`/page/${name}`, token ? 'wrong-type' : 'unknown-token', fault, near && `{${near}}`, key);
    return inFile('system.json', list.problems);
  });
}

const slipsKnown = new ObjectMemo<readonly LocalProblem[]>();
const NOTHING = {};
const DERIVED = {};

/** Found again only where what they are looked for in is another: an edit of a rule leaves that alone. */
function slipsOf(component: Component): readonly LocalProblem[] {
  const { document, anatomy, space } = component;
  const { samples = NOTHING, content = NOTHING, behaviour = NOTHING, situations = NOTHING } = document;
  // What takes all of these of its base is not asked for what the base should have said.
  const whose = component.derivation ? DERIVED : NOTHING;
  const found = slipsKnown.of([samples, content, behaviour, situations, anatomy, space, whose], () => [
    ...sampleSlips(component),
    ...slips(component),
  ]);
  return found.filter(({ pointer: at }) => isWrittenHere(component, at));
}

const regions = new ObjectMemo<readonly LocalProblem[]>();

/** What follows from where which rule has the last word. */
const regionProblems = (component: Component): readonly LocalProblem[] =>
  regions.of([component.rules, component.anatomy, component.space], () => {
    try {
      return [
        ...referenceProblems(component),
        ...reachingInProblems(component),
        ...deadRuleProblems(component),
        ...silencedProblems(component),
        ...valueSlips(component).filter(({ pointer: at }) => isWrittenHere(component, at)),
      ];
    } catch (error) {
      if (!(error instanceof TangledRules)) throw error;
      const list = new ProblemList();
      const { speakers } = error.slot;
      const { rule, setting } = speakers.find(each => each.rule.nested === undefined) ?? speakers[0]!;
      list.error(settingPointer(rule, setting), 'tangled-rules', error.message);
      return list.problems;
    }
  });

/** How far references lead is told once none goes round in a circle. */
function referenceProblems(component: Component): LocalProblem[] {
  const circles = cycleProblems(component);
  return circles.length > 0 ? circles : expansionProblems(component);
}

/** Components in the reader's order that there are not. */
function orderSlips({ documents, components }: System): Problem[] {
  const { order = [] } = (documents.get('system.json') ?? {}) as { order?: readonly string[] };
  const ids = components.map(({ id }) => id);
  const list = new ProblemList();
  order.forEach((id, index) => {
    if (!ids.includes(id))
      list.warning(
        pointer('order', index),
        'unknown-component',
        `There is no component “${brief(id)}”.`,
        new Suggestions(ids).nearest(id),
        id,
      );
  });
  return inFile('system.json', list.problems);
}

/** A component in a file of another name is not found by who looks for it; one made beside another has a number behind its name. */
function fileNameSlips({ documents }: System): Problem[] {
  return documentsOf(documents, 'component').flatMap(([path, document]) => {
    const { id } = document as { id: string };
    const named = path.slice('components/'.length, -'.component.json'.length);
    const list = new ProblemList();
    // What stands in for an id that is missing is nobody's.
    if (id === UNREADABLE) return [];
    if (named.replace(/-\d+$/, '') !== id && named !== id)
      list.warning(
        '/id',
        'other-file',
        `“${brief(id)}” lies in a file that is called “${brief(named)}”.`,
        named,
        id,
      );
    return inFile(path, list.problems);
  });
}

function twinComponents(system: System): Problem[] {
  const seen = new Set<string>();
  return [...system.documents].flatMap(([path, document]) => {
    if (documentKind(path)?.kind !== 'component') return [];
    const { id } = document as { id: string };
    const list = new ProblemList();
    if (seen.has(id)) list.error('/id', 'duplicate-id', `There is a component “${id}” already.`);
    seen.add(id);
    return inFile(path, list.problems);
  });
}

/** By what is known of the tokens in use. */
const values = new ObjectMemo<Map<string, readonly LocalProblem[]>>();

/** What is wrong with values in the usual context, and what only elsewhere; found again only when tokens in use come, go or change type. */
function valuesInAllContexts(component: Component, { tokens }: System): readonly LocalProblem[] {
  const byTokens = values.of([component.rules, component.anatomy], () => new Map<string, LocalProblem[]>());
  const known = knownOfTokens(component, tokens);
  let found = known === null ? undefined : byTokens.get(known);
  if (!found) {
    found = valuesAnew(component, tokens);
    byTokens.clear();
    if (known !== null) byTokens.set(known, found);
  }
  return found;
}

const namedTokens = new ObjectMemo<ReadonlySet<string>>();

/** All that a check of values asks about tokens, as text; `null` when one is missing, since then any other may be suggested. */
function knownOfTokens(component: Component, tokens: TokenModel): string | null {
  const told: string[] = [JSON.stringify(tokens.modifiers.map(({ name, contexts }) => [name, contexts]))];
  for (const own of tokens.alongEach()) {
    const known = knownInContext(component, own);
    if (known === null) return null;
    told.push(known);
  }
  return told.join('\n\n');
}

/** The same of one context. */
function knownInContext({ rules }: Component, tokens: TokenSet): string | null {
  const keys = namedTokens.of(
    [rules],
    () => new Set(rules.flatMap(({ written }) => written.flatMap(({ value }) => tokensIn(value)))),
  );
  const told: string[] = [];
  for (const key of keys) {
    const token = tokens.byKey.get(key);
    if (!token) return null;
    told.push(`${token.type} ${String(token.deprecated ?? '')}`);
  }
  return told.join('\n');
}

function valuesAnew(component: Component, tokens: TokenModel): LocalProblem[] {
  const found = valueProblems(component, tokens.usual());
  const seen = new Set(found.map(({ pointer: at, code }) => `${at} ${code}`));
  const usual = knownInContext(component, tokens.usual());
  const looked = new Set([tokens.usual()]);
  for (const modifier of tokens.modifiers) {
    for (const [context, own] of tokens.along(modifier)) {
      if (looked.has(own) || found.length > QUOTAS.problemsFound) continue;
      looked.add(own);
      // Where tokens exist and are of types as usual, nothing else can be wrong.
      if (usual !== null && knownInContext(component, own) === usual) continue;
      for (const problem of valueProblems(component, own)) {
        const key = `${problem.pointer} ${problem.code}`;
        if (seen.has(key)) continue;
        seen.add(key);
        found.push({ ...problem, message: `In ${modifier.name} ${context}: ${problem.message}` });
      }
    }
  }
  return found;
}

/** Rules that say something nobody will ever see. */
function deadRuleProblems(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  for (const { rule, property, because, by, limits } of deadRules(component)) {
    if (property !== null || because === 'silent') continue;
    const others = oneOf(by.map(each => `“${each.id}”`)).replace(/ or (?=“[^“]*$)/, ' and ');
    const reason = limits.map(limit => limit.because).find(text => text !== '');
    problems.warning(
      pointer('rules', rule.index),
      'dead-rule',
      because === 'covered'
        ? `This rule never has the last word: ${others} always ${by.length === 1 ? 'speaks' : 'speak'} after it.`
        : `The limits never let this rule's condition hold${reason ? `: ${reason}` : '.'}`,
    );
  }
  return problems.problems;
}

/** Rules that take away what a nested component shows of its own states. */
function silencedProblems(component: Component): LocalProblem[] {
  const problems = new ProblemList();
  for (const { slot, state, by } of silencedStates(component)) {
    const first = slot.speakers.find(({ rule }) => rule.nested !== undefined)!.rule.id;
    problems.warning(
      settingPointer(by.rule, by.setting),
      'silenced-state',
      `“${by.rule.id}” covers “${state.id}” wherever that speaks: ${slot.name} no longer answers. Right behind “${first}” it would leave that its word.`,
      `"after": "${first}"`,
    );
  }
  return problems.problems;
}

/** Icons that samples name but the system does not hold. */
function sampleProblems(component: Component, system: System): LocalProblem[] {
  const problems = new ProblemList();
  const iconKeys = component.anatomy.parts
    .filter(part => part.kind.kind === 'icon')
    .map(part => part.content);
  component.samples.forEach((sample, index) => {
    for (const [key, text] of Object.entries(sample.content)) {
      if (!iconKeys.includes(key)) continue;
      if (Array.isArray(text)) continue;
      for (const name of typeof text === 'string' ? [text] : Object.values(text as Record<string, string>)) {
        if (system.icons.has(name)) continue;
        problems.error(
          pointer('samples', index, 'content', key),
          'unknown-icon',
          `There is no icon “${name}”.`,
        );
      }
    }
  });
  return problems.problems;
}
