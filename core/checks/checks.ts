import type { Component } from '../components/component';
import type { System } from '../components/system';
import { iconProblems } from '../render/icon';
import { tokenNameProblems } from '../output/tokens/token-names';
import { inFile, type LocalProblem, type Problem } from '../json/problem';
import { behaviourProblems } from './check-behaviour';
import { fileNameSlips, orderSlips, twinComponents } from './check-component-files';
import { contentProblems } from './check-content';
import { contextProblems } from './check-contexts';
import { pageProblems } from './check-page-colors';
import { parameterProblems } from './check-parameters';
import { sampleIconProblems } from './check-sample-icons';
import { sampleSlips } from './check-samples';
import { slips } from './check-slips';
import { comparisonSlips, trialProblems } from './check-trials';
import { valuesInAllContexts } from './check-values-in-contexts';
import { isTangled, winningRuleProblems } from './check-winning-rules';
import { idleSlips } from './idle-slips';
import { unlabelledControls } from './unlabelled-controls';
import { valueSlips } from './value-slips';

type Inputs = readonly [object, ...object[]];

/** One thing that a component is looked through for. */
export interface ComponentCheck {
  readonly check: (component: Component, system: System) => readonly LocalProblem[];
  /** What it looks at: it is not made again while these are the same objects. Absent where it is cheap, or remembers by itself. */
  readonly inputs?: (component: Component) => Inputs;
  /** Whether it finds slips only where they were made, not in what a derived component takes of its base. */
  readonly isOwn?: boolean;
}

const NOTHING = {};
const DERIVED = {};

/** An edit of a rule leaves these alone. */
function allButRules({ document, anatomy, space, derivation }: Component): Inputs {
  const { samples = NOTHING, content = NOTHING, behaviour = NOTHING, situations = NOTHING } = document;
  // What takes all of these of its base is not asked for what the base should have said.
  return [samples, content, behaviour, situations, anatomy, space, derivation ? DERIVED : NOTHING];
}

const rulesAndParts = ({ rules, anatomy, space }: Component): Inputs => [rules, anatomy, space];

/** What each component is looked through for, in the order of the report. Adding a check is adding a file and a row. */
export const COMPONENT_CHECKS: readonly ComponentCheck[] = [
  { check: ({ problems }) => problems },
  { check: valuesInAllContexts },
  { check: sampleIconProblems },
  { check: contentProblems },
  { check: behaviourProblems },
  { check: sampleSlips, inputs: allButRules, isOwn: true },
  { check: slips, inputs: allButRules, isOwn: true },
  { check: idleSlips, isOwn: true },
  { check: (component, { tokens, prefix }) => parameterProblems(component, tokens.usual(), prefix) },
  { check: winningRuleProblems },
  {
    check: component => (isTangled(component) ? [] : valueSlips(component)),
    inputs: rulesAndParts,
    isOwn: true,
  },
];

/** What a system is looked through for beyond its components. */
export const SYSTEM_CHECKS: readonly ((system: System) => readonly Problem[])[] = [
  ({ tokens }) => tokens.problems(),
  tokenNameProblems,
  contextProblems,
  pageProblems,
  twinComponents,
  fileNameSlips,
  unlabelledControls,
  orderSlips,
  trialProblems,
  comparisonSlips,
  ({ icons }) => [...icons].flatMap(([name, svg]) => inFile(`icons/${name}.svg`, iconProblems(svg))),
];
