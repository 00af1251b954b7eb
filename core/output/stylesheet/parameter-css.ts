import type { Component } from '../../components/component';
import type { Parameter } from '../../components/parameter';
import { asTokens, parametersIn, propertyLike } from '../../components/parameters';
import { calcIn } from '../../cascade/font-relative';
import type { Calc } from '../../css/calc';
import type { Property } from '../../css/property';
import { readValue, type Value } from '../../css/value-syntax';
import { cssValue, type CssContext } from './css-value';
import type { StyleBlock } from './stylesheet';
import { parameterProperty } from '../tokens/token-names';

/** The id that a parameter has in its own component. */
const ownId = ({ key }: Parameter): string => key.slice(key.lastIndexOf('/') + 1);

const same = (calc: Calc): Calc => calc;

/**
 * A parameter as CSS reads it: the custom property of its component, then those of the components that it was taken from, then the
 * default in its place. Nothing declares it, so that a theme or a single use can. `null` where its default is no value.
 */
export function parameterCss(
  key: string,
  context: CssContext,
  free: (calc: Calc) => Calc = same,
): string | null {
  const parameter = context.component.parameters.get(key);
  const property = parameter && propertyLike(parameter.document.type);
  if (!parameter || !property) return null;
  const fallback = textCss(parameter.document.default, property, context, free);
  if (fallback === null) return null;
  return parameter.owners.reduceRight(
    (rest, owner) => `var(${parameterProperty(context.prefix, owner, ownId(parameter))}, ${rest})`,
    fallback,
  );
}

/**
 * A context for what is published on the root of a component, around the nested roots on which uses give parameters: what a use gives stands
 * there in place of the custom property, and no length in it is measured against the part that happens to read it.
 */
export function publishing(context: CssContext, free: (calc: Calc) => Calc): CssContext {
  const outside: CssContext = {
    ...context,
    parameter: key => {
      const parameter = context.component.parameters.get(key);
      const property = parameter && propertyLike(parameter.document.type);
      if (!parameter || !property) return null;
      return parameter.given === null
        ? parameterCss(key, outside, free)
        : textCss(parameter.given, property, outside, free);
    },
  };
  return outside;
}

/** A value of a parameter as CSS; a bare zero of a length has its unit, so that it can be calculated with. */
function textCss(
  text: string,
  property: Property,
  context: CssContext,
  free: (calc: Calc) => Calc,
): string | null {
  const read = readValue(property, asTokens(text));
  if (!read.ok) return null;
  const calc = calcIn(read.value);
  const freed = calc && free(calc);
  const value: Value = freed && freed !== calc ? { kind: 'calc', text, calc: freed } : read.value;
  const css = cssValue(property, value, context);
  return css === '0' && property.name === propertyLike('dimension')!.name ? '0px' : css;
}

/** What uses of nested components set their parameters to, on the roots of these. */
export function parameterBlocks(context: CssContext): StyleBlock[] {
  const { component, names, prefix } = context;
  const byWay = new Map<string, [string, string][]>();
  for (const parameter of component.parameters.values()) {
    const property = propertyLike(parameter.document.type);
    const css =
      parameter.given !== null && property ? textCss(parameter.given, property, context, same) : null;
    if (css === null) continue;
    const way = parameter.key.slice(0, parameter.key.lastIndexOf('/'));
    const name = parameterProperty(prefix, parameter.owners[0]!, ownId(parameter));
    byWay.set(way, [...(byWay.get(way) ?? []), [name, css]]);
  }
  return [...byWay].map(([way, declarations]) => {
    const root = component.anatomy.byName.get(way)!;
    return {
      key: `parameters/${way}`,
      comment: [`${root.title}: what is set of it here.`],
      selector: `.${names.part(root.name)}`,
      declarations,
    };
  });
}

/** Texts in which a component's parameters may name tokens: their defaults, and what uses give. */
export const parameterTexts = ({ parameters }: Component): string[] =>
  [...parameters.values()].flatMap(({ document, given }) =>
    [document.default, ...(given === null ? [] : [given])].filter(text => parametersIn(text).length === 0),
  );
