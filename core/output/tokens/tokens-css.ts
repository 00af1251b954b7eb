import type { System } from '../../components/system';
import { cssString } from '../../text/css-text';
import { ObjectMemo } from '../../json/object-memo';
import { colorHex, isWideGamut, type TokenColor } from '../../tokens/color';
import type { ContextInput, Modifier } from '../../tokens/contexts';
import type { TokenModel } from '../../tokens/token-model';
import type { Token, TokenSet } from '../../tokens/token-set';
import { dependences, type Dependence } from './context-dependence';
import type { Declaration } from '../stylesheet/css-value';
import { namesOf, type OutputNames } from '../../render/names';
import type { StyleBlock, Stylesheet } from '../stylesheet/stylesheet';
import { usedTokens, usedVariables, variableName, variablesOf, variableText } from './token-variables';

/** On what the tokens are declared that hold everywhere: the page, or the host of a shadow tree. */
export type TokensOn = ':root' | ':host';

/**
 * The tokens that are used as custom properties. A property that refers to another is computed where it is declared (CSS
 * Variables 1, section 2.2), so the block of each context repeats what differs there and all that depends on it, and nothing
 * else. What depends on one modifier alone is simply declared anew in its contexts. What depends on several asks for the
 * others' contexts where it stands, through private switches that are inherited: a context's switch is `initial`, so that
 * `var()` gives its fallback, while that of any other context is empty and gives nothing. So contexts may be switched on
 * elements inside one another in any order.
 */
export function tokensStylesheet(system: System, on: TokensOn = ':root'): Stylesheet {
  const { tokens, prefix } = system;
  const graph = usedVariables(system, tokens.everyContext());
  const writer = new TokenBlocks(system, dependences(tokens, graph, prefix), on);
  return {
    layer: null,
    head: [`Tokens of ${system.title}`],
    blocks: writer.blocks().flatMap(block => writer.withStandIns(block)),
  };
}

class TokenBlocks {
  private readonly usual: ContextInput;
  private readonly entangled: readonly Dependence[];
  private readonly switched: readonly Modifier[];
  private readonly names: OutputNames;
  /** Descriptions by custom property. */
  private readonly remarks: ReadonlyMap<string, string>;
  /** What stands in for texts that are colours beyond sRGB. */
  private readonly standIns: ReadonlyMap<string, string>;

  constructor(
    private readonly system: System,
    private readonly found: readonly Dependence[],
    private readonly on: TokensOn,
  ) {
    const { tokens } = system;
    this.names = namesOf(system);
    this.usual = tokens.usualInput();
    this.entangled = found.filter(isEntangled);
    this.switched = tokens.modifiers.filter(({ name }) =>
      this.entangled.some(each => each.differsBy.includes(name)),
    );
    this.standIns = standInsOf(tokens);
    const { byKey } = tokens.usual();
    this.remarks = new Map(
      found.flatMap(({ name, variable }) => {
        const description = variable.member === null ? byKey.get(variable.key)?.description : undefined;
        return description ? [[name, description] as const] : [];
      }),
    );
  }

  blocks(): StyleBlock[] {
    const { modifiers } = this.system.tokens;
    const root = [
      ...this.switched.flatMap(modifier => this.switches(modifier, this.usual[modifier.name]!)),
      ...this.found.flatMap(each =>
        isEntangled(each) ? this.switchedText(each) : this.declared(each, this.usual),
      ),
      ...modifiers.flatMap(modifier => scheme(modifier, this.usual[modifier.name]!)),
    ];
    const blocks: StyleBlock[] = [
      // What varies stands in the root's block too, so that a page that names no context has the usual one.
      { key: 'root', selector: this.on, declarations: root, remarks: this.remarks },
      ...modifiers.flatMap(modifier =>
        [...modifier.media].map(([context, media]) => ({
          key: `media ${modifier.name}=${context}`,
          comment: [`${modifier.name} ${context}, where the page names no context`],
          selector: this.on,
          within: `@media ${media}`,
          declarations: [...this.own(modifier, context), ...this.painted(modifier, context)],
        })),
      ),
      ...modifiers.flatMap(modifier =>
        modifier.contexts.map(context => ({
          key: `${modifier.name}=${context}`,
          selector: this.contextSelector(`[${this.names.context(modifier.name)}=${cssString(context)}]`),
          declarations: [...this.own(modifier, context), ...this.painted(modifier, context)],
        })),
      ),
      this.anew(),
      ...modifiers.flatMap(modifier => this.print(modifier)),
      ...this.entangledBlocks(),
    ];
    return blocks.filter((block, index) => index === 0 || block.declarations.length > 0);
  }

  private contextSelector(test: string): string {
    return this.on === ':host' ? `:host(${test}), ${test}` : test;
  }

  /** What a context declares of its own. */
  private own(modifier: Modifier, context: string): Declaration[] {
    return [
      ...(this.switched.includes(modifier) ? this.switches(modifier, context) : []),
      ...this.found
        .filter(each => !isEntangled(each) && each.dependsOn.includes(modifier.name))
        .flatMap(each => this.declared(each, { ...this.usual, [modifier.name]: context })),
    ];
  }

  /** The page's colours where a modifier that changes them is switched, so that nothing stands on a surface of another context. */
  private painted(modifier: Modifier, context: string): Declaration[] {
    const paint = (key: string | null, property: string): Declaration[] => {
      const dependence = this.found.find(({ variable }) => variable.key === key && variable.member === null);
      return dependence?.dependsOn.includes(modifier.name) ? [[property, `var(${dependence.name})`]] : [];
    };
    const { surface, ink } = this.system.page;
    return [...scheme(modifier, context), ...paint(surface, 'background-color'), ...paint(ink, 'color')];
  }

  /**
   * Where a page gives a token another value, everything that refers to it is declared anew: what the contexts have in common
   * here, the rest by the context that the same element names.
   */
  private anew(): StyleBlock {
    return {
      key: 'anew',
      comment: ['Where a page sets some of these to values of its own'],
      selector: `[${this.names.anew}]`,
      declarations: this.found
        .filter(each => each.refers && each.differsBy.length === 0)
        .flatMap(each => this.declared(each, this.usual)),
    };
  }

  /** Printers leave out dark surfaces and keep light ink: on paper every context is a light one. */
  private print(modifier: Modifier): StyleBlock[] {
    const { colorScheme, contexts } = modifier;
    const light = contexts.find(context => colorScheme.get(context) === 'light');
    const hasDark = contexts.some(context => colorScheme.get(context) === 'dark');
    if (light === undefined || !hasDark) return [];
    return [
      {
        key: `print ${modifier.name}`,
        comment: ['On paper'],
        selector: `${this.on}, ${this.contextSelector(`[${this.names.context(modifier.name)}]`)}`,
        within: '@media print',
        declarations: [...this.own(modifier, light), ...this.painted(modifier, light)],
      },
    ];
  }

  /** The declaration of a variable in one context. */
  private declared({ name, text }: Dependence, input: ContextInput): Declaration[] {
    const css = text(input);
    return css === null ? [] : [[name, css]];
  }

  /** A block with stand-ins in place of colours beyond sRGB, and behind it one with these, for displays that show them. */
  withStandIns(block: StyleBlock): StyleBlock[] {
    const wide = block.declarations.filter(([, css]) => this.standIns.has(css));
    if (wide.length === 0) return [block];
    const declarations = block.declarations.map(([name, css]): Declaration => [
      name,
      this.standIns.get(css) ?? css,
    ]);
    const also = block.within === undefined ? '' : ` and ${block.within.replace('@media ', '')}`;
    return [
      { ...block, declarations },
      {
        key: `${block.key} wide`,
        selector: block.selector,
        within: `@media (color-gamut: p3)${also}`,
        declarations: wide,
      },
    ];
  }

  /** The same declaration for all contexts, with a switch around each context's text. */
  private switchedText({ name, differsBy, text }: Dependence): Declaration[] {
    const own = this.switched.filter(modifier => differsBy.includes(modifier.name));
    const write = (rest: readonly Modifier[], input: ContextInput): string => {
      const [modifier, ...others] = rest;
      if (!modifier) return text(input) ?? '';
      const texts = modifier.contexts.map(context => write(others, { ...input, [modifier.name]: context }));
      if (texts.every(each => each === texts[0])) return texts[0]!;
      return modifier.contexts
        .map((context, index) => `var(${this.names.contextSwitch(modifier.name, context)}, ${texts[index]!})`)
        .join(' ');
    };
    return [[name, write(own, this.usual)]];
  }

  /** One block for each set of modifiers that have a say together: on whatever element switches one of them. */
  private entangledBlocks(): StyleBlock[] {
    const groups = new Map<string, Dependence[]>();
    for (const each of this.entangled) {
      const key = JSON.stringify(each.dependsOn);
      groups.set(key, [...(groups.get(key) ?? []), each]);
    }
    return [...groups].map(([key, members]) => ({
      key,
      selector: members[0]!.dependsOn
        .map(name => this.contextSelector(`[${this.names.context(name)}]`))
        .join(', '),
      declarations: members.flatMap(each => this.switchedText(each)),
    }));
  }

  private switches({ name, contexts }: Modifier, chosen: string): Declaration[] {
    return contexts.map(context => [
      this.names.contextSwitch(name, context),
      context === chosen ? 'initial' : '',
    ]);
  }
}

/** The CSS text of every colour beyond sRGB, with the one the format names for it or the nearest. */
function standInsOf(tokens: TokenModel): Map<string, string> {
  const found = new Map<string, string>();
  for (const set of tokens.everyContext()) {
    for (const { type, value, css } of set.byKey.values()) {
      if (type !== 'color' || css.startsWith('#')) continue;
      const color = value as TokenColor;
      if (isWideGamut(color)) found.set(css, color.hex ?? colorHex(color));
    }
  }
  return found;
}

/**
 * Whether more than one modifier has a say, so that no single context's block can declare it. What too many have a say in is
 * an error of the system, and declared as if each modifier stood alone.
 */
const isEntangled = ({ dependsOn, differsBy, tooMany }: Dependence): boolean =>
  dependsOn.length > 1 && differsBy.length > 0 && !tooMany;

/** So that native pickers, scrollbars and form controls are light or dark as the context is. */
function scheme({ colorScheme }: Modifier, context: string): Declaration[] {
  const known = colorScheme.get(context);
  return known ? [['color-scheme', known]] : [];
}

const declaredTokens = new ObjectMemo<Map<string, readonly Declaration[]>>();

/**
 * The tokens that components use as they are declared in one context: custom property to CSS text. For previews. What a token's text
 * refers to is there, or the token would not be; so it is made once for each token.
 */
export function tokenDeclarations(system: System, contexts: ContextInput): ReadonlyMap<string, string> {
  const { tokens, prefix } = system;
  const set = tokens.in(contexts);
  const all = new Map<string, string>();
  for (const token of usedTokens(system, set)) {
    const known = declaredTokens.of([token], () => new Map<string, readonly Declaration[]>());
    let own = known.get(prefix);
    if (!own) known.set(prefix, (own = declarationsOf(token, set, prefix)));
    for (const [name, text] of own) all.set(name, text);
  }
  return all;
}

const declarationsOf = (token: Token, set: TokenSet, prefix: string): Declaration[] =>
  variablesOf(token).map(variable => [
    variableName(variable, set, prefix)!,
    variableText(variable, set, prefix) ?? '',
  ]);
