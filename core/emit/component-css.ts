import type { Component, Rule } from '../rules/component';
import { isEmpty, type Box } from '../space/box';
import type { TokenSet } from '../tokens/token-set';
import { partClass, rootClass } from './class-names';
import {
  declaration,
  publishedDeclarations,
  referredProperties,
  type DeclarationContext,
} from './declarations';
import { selectorList, type Formula } from './formula';
import { resetBlocks } from './reset';
import { regionFormula, type SelectorScheme } from './selector-scheme';
import type { StyleBlock, Stylesheet } from './stylesheet';

export interface ComponentCssInput {
  readonly component: Component;
  readonly prefix: string;
  readonly tokens: TokenSet;
  readonly scheme: SelectorScheme;
}

/**
 * A component's stylesheet: a reset, then one block per rule and part in the order of the rules. All selectors weigh the
 * same, one class (conditions stand in `:where()`), so the cascade's order is the rules' order.
 */
export function componentStylesheet({ component, prefix, tokens, scheme }: ComponentCssInput): Stylesheet {
  const context: DeclarationContext = { prefix, tokens };
  const referred = referredProperties(component);
  const blocks = component.rules.flatMap(rule => ruleBlocks(rule, component, scheme, context, referred));
  return {
    layer: prefix,
    comment: `${component.title} (${component.id})`,
    blocks: [...resetBlocks(component, prefix), ...blocks],
  };
}

function ruleBlocks(
  rule: Rule,
  component: Component,
  scheme: SelectorScheme,
  context: DeclarationContext,
  referred: ReadonlySet<string>,
): StyleBlock[] {
  if (isNowhere(component, rule.region)) return [];
  const formula = regionFormula(scheme, component, rule.region, context.prefix);
  const root = component.anatomy.root.name;
  const byPart = new Map<string, (readonly [string, string])[]>();
  const add = (part: string, declarations: readonly (readonly [string, string])[]): void => {
    if (declarations.length > 0) byPart.set(part, [...(byPart.get(part) ?? []), ...declarations]);
  };
  for (const setting of rule.settings) {
    add(root, publishedDeclarations(setting, referred, context));
    const own = declaration(setting, component.anatomy.byName.get(setting.part)!, context);
    if (own) add(setting.part, [own]);
  }
  return [...byPart].map(([part, declarations]) => ({
    key: `${rule.id}/${part}`,
    selector: partSelector(component, part, formula, context.prefix),
    declarations,
  }));
}

const isNowhere = (component: Component, region: Box): boolean =>
  isEmpty(region) || component.space.reachedFrom(region).length === 0;

/** `.qs-text-field-frame:where(.qs-text-field:hover *)`: the part's class weighs, the condition does not. */
function partSelector(component: Component, part: string, formula: Formula, prefix: string): string {
  const own = `.${partClass(prefix, component, part)}`;
  if (formula.kind === 'true') return own;
  if (part === component.anatomy.root.name) {
    return `${own}:where(${selectorList(formula).join(', ')})`;
  }
  const root = `.${rootClass(prefix, component)}`;
  const lists = selectorList(formula).map(text => `${root}${text} *`);
  return `${own}:where(${lists.join(', ')})`;
}
