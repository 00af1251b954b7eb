import type { Component, Rule } from '../rules/component';
import { NOWHERE } from '../space/extent';
import type { TokenSet } from '../tokens/token-set';
import { planBlocks, type StatedBlock } from './block-plan';
import {
  declaration,
  publishedDeclarations,
  referredProperties,
  type Declaration,
  type DeclarationContext,
} from './declarations';
import { compound } from './formula';
import { mergeBlocks } from './merge-blocks';
import { resetBlocks } from './reset';
import { boxesFormula, type SelectorScheme } from './selector-scheme';
import type { StyleBlock, Stylesheet } from './stylesheet';

export interface ComponentCssInput {
  readonly component: Component;
  readonly prefix: string;
  readonly tokens: TokenSet;
  readonly scheme: SelectorScheme;
}

/**
 * A component's stylesheet: a reset, then blocks in the order of the rules. All selectors weigh the same (conditions stand
 * in `:where()`), so the cascade's order is the rules' order. Schemes for plates keep one block per rule and part, so that
 * an edit changes only its own; the others leave out what never wins and say no more than is needed.
 */
export function componentStylesheet(input: ComponentCssInput): Stylesheet {
  const { component, prefix, scheme } = input;
  return {
    layer: prefix,
    comment: `${component.title} (${component.id})`,
    blocks: [
      ...(scheme.reset ? resetBlocks(component, prefix) : []),
      ...(scheme.live ? liveBlocks(input) : leanBlocks(input)),
    ],
  };
}

/** One block per rule and part, with the rule's own condition. */
function liveBlocks({ component, prefix, tokens, scheme }: ComponentCssInput): StyleBlock[] {
  const context = contextOf(component, prefix, tokens);
  return component.rules.flatMap(rule => {
    if (component.space.allowedIn(rule.region) === NOWHERE) return [];
    const formula = boxesFormula(scheme, component, [{ must: rule.region, may: rule.region }], prefix);
    return [...declarationsByPart(rule, component, context)].map(([part, declarations]) => ({
      key: `${rule.id}/${part}`,
      selector: scheme.select(component, [part], formula, prefix),
      declarations,
    }));
  });
}

/**
 * Blocks for all raw combinations that the limits take into the rules' regions, with the fewest tests: what later blocks
 * say anew anyway need not be kept out.
 */
function leanBlocks({ component, prefix, tokens, scheme }: ComponentCssInput): StyleBlock[] {
  const { space } = component;
  const context = contextOf(component, prefix, tokens);
  const stated: StatedBlock[] = component.rules.flatMap(rule => {
    const where = space.reachedFrom(rule.region);
    return [...declarationsByPart(rule, component, context)].map(([part, declarations]) => ({
      key: `${rule.id}/${part}`,
      part,
      declarations,
      where,
    }));
  });
  const blocks = planBlocks(component, stated).map(({ where, free, ...block }) => {
    const formula = boxesFormula(scheme, component, space.cover(where, free), prefix);
    return { ...block, formula, condition: compound(formula) };
  });
  return mergeBlocks(blocks).map(({ key, groups, declarations }) => ({
    key,
    selector: groups.map(({ parts, formula }) => scheme.select(component, parts, formula, prefix)).join(', '),
    declarations,
  }));
}

const contextOf = (component: Component, prefix: string, tokens: TokenSet): DeclarationContext => ({
  component,
  prefix,
  tokens,
  referred: referredProperties(component),
});

/** What a rule declares on each part: its settings, and on the root what others refer to. */
function declarationsByPart(
  rule: Rule,
  component: Component,
  context: DeclarationContext,
): Map<string, Declaration[]> {
  const root = component.anatomy.root.name;
  const byPart = new Map<string, Declaration[]>();
  const add = (part: string, declarations: readonly Declaration[]): void => {
    if (declarations.length > 0) byPart.set(part, [...(byPart.get(part) ?? []), ...declarations]);
  };
  for (const setting of rule.settings) {
    add(root, publishedDeclarations(setting, context));
    const own = declaration(setting, component.anatomy.byName.get(setting.part)!, context);
    if (own) add(setting.part, [own]);
  }
  return byPart;
}
