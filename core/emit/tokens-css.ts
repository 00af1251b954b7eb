import { cssString } from '../formats/css-text';
import type { System } from '../rules/system';
import { kebab } from '../space/axis';
import type { ContextInput, Modifier } from '../tokens/resolver';
import type { TokenModel } from '../tokens/token-model';
import type { TokenSet } from '../tokens/token-set';
import { dependences, type Dependence } from './context-dependence';
import type { Declaration } from './declarations';
import type { StyleBlock, Stylesheet } from './stylesheet';
import { everyVariable, usedVariables, variableName, variableText } from './token-variables';

/**
 * The tokens that are used as custom properties. A property that refers to another is computed where it is declared (CSS
 * Variables 1, section 2.2), so the block of each context repeats what differs there and all that depends on it, and nothing
 * else. What depends on one modifier alone is simply declared anew in its contexts. What depends on several asks for the
 * others' contexts where it stands, through private switches that are inherited: a context's switch is `initial`, so that
 * `var()` gives its fallback, while that of any other context is empty and gives nothing. So contexts may be switched on
 * elements inside one another in any order.
 */
export function tokensStylesheet(system: System): Stylesheet {
  const { tokens, prefix } = system;
  const usual = tokens.usualInput();
  const graph = usedVariables(system, tokens.everyContext());
  const found = dependences(tokens, graph, prefix);
  const switched = tokens.modifiers.filter(({ name }) =>
    found.some(each => isEntangled(each) && each.differsBy.includes(name)),
  );
  const own = (modifier: Modifier, context: string): Declaration[] => [
    ...(switched.includes(modifier) ? switches(modifier, context) : []),
    ...found
      .filter(each => !isEntangled(each) && each.dependsOn.includes(modifier.name))
      .flatMap(each => declared(each, { ...usual, [modifier.name]: context })),
  ];
  const entangled = found.filter(isEntangled);
  const root = [
    ...switched.flatMap(modifier => switches(modifier, usual[modifier.name]!)),
    ...found.flatMap(each => (isEntangled(each) ? switchedText(each, switched) : declared(each, usual))),
  ];
  const blocks: StyleBlock[] = [
    // What varies stands in the root's block too, so that a page that names no context has the usual one.
    { key: 'root', selector: ':root', declarations: root },
    ...tokens.modifiers.flatMap(modifier =>
      [...modifier.media].map(([context, media]) => ({
        key: `media ${modifier.name}=${context}`,
        selector: ':root',
        media,
        declarations: own(modifier, context),
      })),
    ),
    ...tokens.modifiers.flatMap(modifier =>
      modifier.contexts.map(context => ({
        key: `${modifier.name}=${context}`,
        selector: `[${contextAttribute(modifier.name)}=${cssString(context)}]`,
        declarations: own(modifier, context),
      })),
    ),
    ...entangledBlocks(entangled, switched),
  ];
  return {
    layer: null,
    comment: `Tokens of ${system.title}`,
    blocks: blocks.filter((block, index) => index === 0 || block.declarations.length > 0),
  };
}

/**
 * Whether more than one modifier has a say, so that no single context's block can declare it. What too many have a say in is
 * an error of the system, and declared as if each modifier stood alone.
 */
const isEntangled = ({ dependsOn, differsBy, tooMany }: Dependence): boolean =>
  dependsOn.length > 1 && differsBy.length > 0 && !tooMany;

/** The declaration of a variable in one context. */
function declared({ name, text }: Dependence, input: ContextInput): Declaration[] {
  const css = text(input);
  return css === null ? [] : [[name, css]];
}

/** The same declaration for all contexts, with a switch around each context's text. */
function switchedText(
  { name, differsBy, text, usual }: Dependence,
  modifiers: readonly Modifier[],
): Declaration[] {
  const own = modifiers.filter(modifier => differsBy.includes(modifier.name));
  const write = (rest: readonly Modifier[], input: ContextInput): string => {
    const [modifier, ...others] = rest;
    if (!modifier) return text(input) ?? '';
    const texts = modifier.contexts.map(context => write(others, { ...input, [modifier.name]: context }));
    if (texts.every(each => each === texts[0])) return texts[0]!;
    return modifier.contexts
      .map((context, index) => `var(${switchProperty(modifier.name, context)}, ${texts[index]!})`)
      .join(' ');
  };
  return [[name, write(own, usual)]];
}

/** One block for each set of modifiers that have a say together: on whatever element switches one of them. */
function entangledBlocks(entangled: readonly Dependence[], switched: readonly Modifier[]): StyleBlock[] {
  const groups = new Map<string, Dependence[]>();
  for (const each of entangled) {
    const key = each.dependsOn.join(' ');
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  return [...groups].map(([key, members]) => ({
    key,
    selector: members[0]!.dependsOn.map(name => `[${contextAttribute(name)}]`).join(', '),
    declarations: members.flatMap(each => switchedText(each, switched)),
  }));
}

const switches = ({ name, contexts }: Modifier, chosen: string): Declaration[] =>
  contexts.map(context => [switchProperty(name, context), context === chosen ? 'initial' : '']);

/** `--_theme-night`: private, like all custom properties that begin so. */
const switchProperty = (modifier: string, context: string): string =>
  `--_${kebab(modifier)}-${context.replace(/[^\w-]/g, '_')}`;

/** Every token as it is declared in one context: custom property to CSS text. For previews, where all may be wanted. */
export function tokenDeclarations(
  tokens: TokenModel,
  prefix: string,
  contexts: ContextInput,
): ReadonlyMap<string, string> {
  const set: TokenSet = tokens.in(contexts);
  return new Map(
    everyVariable(set).map(variable => [
      variableName(variable, set, prefix)!,
      variableText(variable, set, prefix) ?? '',
    ]),
  );
}

/** Name of the attribute that chooses a modifier's context: `data-theme`. */
export const contextAttribute = (modifier: string): string => `data-${kebab(modifier)}`;
