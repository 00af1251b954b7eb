import type { Component, Rule } from '../../components/component';
import type { System } from '../../components/system';
import { ObjectMemo } from '../../json/object-memo';
import { NOWHERE } from '../../space/extent';
import { AskedTokens } from '../tokens/token-lookups';
import { planBlocks, type StatedBlock } from './block-plan';
import { declarations, type CssContext, type Declaration } from './css-value';
import { boxConditions } from './box-conditions';
import { conditionText } from './condition';
import { mergeBlocks } from './merge-blocks';
import { namesOf, type ComponentNames } from '../../render/names';
import { parameterBlocks, parameterCss } from './parameter-css';
import { Published } from './published-properties';
import { autofillReads, autofillBlocks, resetBlocks } from './reset';
import { rulesInWords } from './rule-comments';
import { selectorOf, type SelectorScheme } from './selector-scheme';
import type { StyleBlock, Stylesheet } from './stylesheet';
import { forcedColorBlocks, userSettingBlocks } from './user-settings';

export interface ComponentCssInput {
  readonly system: System;
  readonly component: Component;
  readonly scheme: SelectorScheme;
  /** Whether a plate is looked at where the person's own colours replace ours: it then says what is to be seen there, too. */
  readonly isForced?: boolean;
}

/**
 * A component's stylesheet: a reset, then blocks in the order of the rules. All selectors weigh the same (conditions stand
 * in `:where()`), so the cascade's order is the rules' order. Schemes for plates keep one block per rule and part, so that
 * an edit changes only its own; the others leave out what never wins and say no more than is needed.
 */
export function componentStylesheet({
  system,
  component,
  scheme,
  isForced = false,
}: ComponentCssInput): Stylesheet {
  const names = namesOf(system).component(component.id);
  const sheet = usualStylesheet(system, component, scheme, names);
  if (!scheme.live || !isForced) return sheet;
  return { ...sheet, blocks: [...sheet.blocks, ...forcedColorBlocks(component, names, scheme)] };
}

function usualStylesheet(
  system: System,
  component: Component,
  scheme: SelectorScheme,
  names: ComponentNames,
): Stylesheet {
  const made = sheets.of([component, scheme, names], (): { last: Made | null } => ({ last: null }));
  if (!made.last?.asked.holdIn(system.tokens)) {
    const asked = new AskedTokens(system.tokens);
    const sheet = makeStylesheet(component, scheme, names, system.prefix, asked);
    made.last = { asked: asked.close(), sheet };
  }
  return made.last.sheet;
}

interface Made {
  readonly asked: AskedTokens;
  readonly sheet: Stylesheet;
}
/** The last stylesheet of each component and scheme: the same object as long as it would come out the same. */
const sheets = new ObjectMemo<{ last: Made | null }>();

function makeStylesheet(
  component: Component,
  scheme: SelectorScheme,
  names: ComponentNames,
  prefix: string,
  tokens: AskedTokens,
): Stylesheet {
  // On plates nothing is filled in by a browser.
  const fillsIn = scheme.ground !== null && !scheme.live;
  const published = new Published(component, names.published, fillsIn ? autofillReads(component) : []);
  const context: CssContext = {
    component,
    prefix,
    names,
    tokens,
    read: published.read,
    parameter: key => parameterCss(key, context),
  };
  const emitted = new Emission(context, published, scheme);
  return {
    layer: null,
    head: [`${component.title} (${component.id})`],
    blocks: [
      ...(scheme.ground ? resetBlocks(component, names, scheme.ground) : []),
      ...parameterBlocks(context),
      ...(scheme.live ? emitted.liveBlocks() : emitted.leanBlocks()),
      ...(fillsIn ? autofillBlocks(context) : []),
      ...(scheme.live ? [] : userSettingBlocks(component, names, scheme)),
    ],
  };
}

class Emission {
  private readonly condition: ReturnType<typeof boxConditions>;

  constructor(
    private readonly context: CssContext,
    private readonly published: Published,
    private readonly scheme: SelectorScheme,
  ) {
    this.condition = boxConditions(scheme, context.component, context.names);
  }

  /** One block per rule and part, with the rule's own condition. */
  liveBlocks(): StyleBlock[] {
    const { component, names } = this.context;
    return component.rules.flatMap(rule => {
      const { space } = component;
      if (space.extents.and(space.spoken(rule), space.allowed) === NOWHERE) return [];
      const boxes =
        rule.extent === undefined
          ? [{ must: rule.region, may: rule.region }]
          : space.cover(rule.extent, space.never);
      const condition = this.condition(boxes);
      return [...this.declarationsByPart(rule)].map(([part, own]) => ({
        key: `${rule.id}/${part}`,
        selector: selectorOf(this.scheme, component, [part], condition, names),
        declarations: own,
      }));
    });
  }

  /**
   * Blocks for all raw combinations that the limits take into the rules' regions, with the fewest tests: what later blocks
   * say anew anyway need not be kept out.
   */
  leanBlocks(): StyleBlock[] {
    const { component, names } = this.context;
    const { space } = component;
    const stated: StatedBlock[] = component.rules.flatMap(rule => {
      const where = space.reachedBy(rule);
      return [...this.declarationsByPart(rule)].map(([part, own]) => ({
        rules: [rule],
        part,
        declarations: own,
        where,
      }));
    });
    const blocks = planBlocks(component, stated).map(({ where, free, ...block }) => {
      const condition = this.condition(space.cover(where, free));
      return { ...block, condition, conditionText: conditionText(condition) };
    });
    return mergeBlocks(blocks).map(({ rules, groups, declarations: own }) => ({
      key: `${rules.map(rule => rule.id).join('+')}/${groups.flatMap(group => group.parts).join('+')}`,
      comment: rulesInWords(component, rules),
      selector: groups
        .map(({ parts, condition }) => selectorOf(this.scheme, component, parts, condition, names))
        .join(', '),
      declarations: own,
    }));
  }

  /** What a rule declares on each part: its settings, and on a root around it what others refer to. */
  private declarationsByPart(rule: Rule): Map<string, Declaration[]> {
    const { anatomy } = this.context.component;
    const byPart = new Map<string, Declaration[]>();
    const add = (part: string, own: readonly Declaration[]): void => {
      if (own.length > 0) byPart.set(part, [...(byPart.get(part) ?? []), ...own]);
    };
    for (const setting of rule.settings) {
      add(this.published.placeOf(setting), this.published.declarations(setting, this.context));
      add(setting.part, declarations(setting, anatomy.byName.get(setting.part)!, this.context));
    }
    return byPart;
  }
}
