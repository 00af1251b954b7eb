import { converter, parse } from 'culori';
import { hostAndPseudo } from '@periwinkle/core/components/anatomy/pseudo-parts';
import { leavesOf, shorthandOf } from '@periwinkle/core/css/property-registry';
import type { Outcomes } from '@periwinkle/core/cascade/outcome';

const toRgb = converter('rgb');

/** What to read of a part: the property as the browser has it, and what the core says of it. */
interface Wanted {
  readonly selector: string;
  /** What the browser draws in it, with colons; empty for the part itself. */
  readonly pseudo: string;
  readonly values: Readonly<Record<string, string>>;
}

/** By part and property: what the browser computed, and what it computes from the core's text on an element like it. */
export type Styles = Record<string, Record<string, readonly [computed: string, fromCore: string]>>;

/**
 * Script for the page: computed styles of the parts of a field, and beside each what the browser makes of the core's text for
 * it. Gets the root element and what is wanted by part. Transitions are finished first, so that the end is read and not the way
 * there.
 */
export const READ_STYLES = `
  const [root, wanted] = arguments;
  const scope = root.shadowRoot ?? root;
  (root.getRootNode().getAnimations?.() ?? []).concat(document.getAnimations()).forEach(each => each.finish());
  const outer = document.createElement('div');
  const scratch = document.createElement('div');
  outer.append(scratch);
  document.body.append(outer);
  // What is asked for again on this page has the same answer.
  const known = (window.knownFromCore ??= new Map());
  const { fontSize } = getComputedStyle(document.documentElement);
  const fromCore = (name, value, style, around) => {
    const line = name.endsWith('-width') ? style.getPropertyValue(name.replace('width', 'style')) : '';
    const key = [name, value, line, style.color, style.fontSize, around.color, around.fontSize, fontSize, innerWidth, innerHeight].join('|');
    if (!known.has(key)) known.set(key, computedFrom(name, value, style, around));
    return known.get(key);
  };
  const computedFrom = (name, value, style, around) => {
    outer.style.cssText = 'all: initial; font-size: ' + around.fontSize + '; color: ' + around.color;
    scratch.style.cssText = 'all: initial; display: none; font-size: inherit; color: ' + (name === 'color' ? 'inherit' : style.color);
    if (name !== 'font-size') scratch.style.fontSize = style.fontSize;
    // A line that is not drawn has no width.
    if (name.endsWith('-width')) scratch.style.setProperty(name.replace('width', 'style'), style.getPropertyValue(name.replace('width', 'style')));
    scratch.style.setProperty(name, value);
    return getComputedStyle(scratch).getPropertyValue(name);
  };
  const result = {};
  for (const [part, { selector, pseudo, values }] of Object.entries(wanted)) {
    const element = scope.matches?.(selector) ? scope : scope.querySelector(selector);
    if (!element) continue;
    const style = pseudo === '' ? getComputedStyle(element) : getComputedStyle(element, pseudo);
    const around = getComputedStyle(pseudo === '' ? element.parentElement ?? element.getRootNode().host : element);
    result[part] = Object.fromEntries(Object.entries(values).map(([name, value]) =>
      [name, [style.getPropertyValue(name), fromCore(name, value, style, around)]]));
  }
  outer.remove();
  return result;`;

/** The red, green, blue and alpha of a colour, each from 0 to 255. */
function channels(text: string): number[] | null {
  const color = parse(text);
  if (!color) return null;
  const { r, g, b, alpha = 1 } = toRgb(color);
  return [r, g, b, alpha].map(part => 255 * Math.min(1, Math.max(0, part)));
}

/** A browser keeps lengths below this. */
const LONGEST_PX = 33_554_000;

/** Layout rounds lengths to 1/64 px, numbers are held with six digits, and the core writes four decimals. */
function isNear(x: number, y: number): boolean {
  if (Math.min(Math.abs(x), Math.abs(y)) >= LONGEST_PX) return Math.sign(x) === Math.sign(y);
  return Math.abs(x - y) <= Math.max(1 / 64, Math.abs(x) * 1e-4);
}

const NUMBER = /-?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/g;

/** Whether two texts of the browser's own writing say the same, number by number. */
function agrees(name: string, computed: string, fromCore: string): boolean {
  if (computed === fromCore) return true;
  if (name.endsWith('color')) {
    const [a, b] = [channels(computed), channels(fromCore)];
    return a !== null && b !== null && a.every((part, index) => Math.abs(part - b[index]!) <= 1.5);
  }
  const [a, b] = [computed.match(NUMBER) ?? [], fromCore.match(NUMBER) ?? []];
  return (
    computed.replace(NUMBER, '#') === fromCore.replace(NUMBER, '#') &&
    a.every((number, index) => isNear(Number(number), Number(b[index])))
  );
}

/** The CSS properties that show an outcome: the sides of a shorthand one by one, without those that have their own. */
function shownBy(property: string, outcomes: Readonly<Record<string, unknown>>): readonly string[] {
  return leavesOf(property).filter(leaf => {
    let name = leaf;
    while (name !== property && !Object.hasOwn(outcomes, name)) name = shorthandOf(name)!;
    return name === property;
  });
}

/** Values that say nothing of their own: they ask the part around, or CSS. */
const isSilent = (value: string): boolean => value === '' || /^(inherit|initial|unset)$/i.test(value);

/** What browsers give to elements whatever a page says. */
const FORCED_BY_BROWSERS: Readonly<Record<string, readonly string[]>> = { control: ['overflow'] };

/** What to read for a set of outcomes. */
export function wantedFrom(parts: Outcomes, classOf: (part: string) => string): Record<string, Wanted> {
  return Object.fromEntries(
    Object.entries(parts).map(([part, outcomes]) => {
      const values = Object.entries(outcomes).flatMap(([property, { value }]): [string, string][] => {
        if (property === 'present') return [['display', value === 'false' ? 'none' : 'block']];
        return isSilent(value) || FORCED_BY_BROWSERS[part]?.includes(property)
          ? []
          : shownBy(property, outcomes).map(name => [name, value]);
      });
      const [host, pseudo] = hostAndPseudo(part);
      return [part, { selector: `.${classOf(host)}`, pseudo, values: Object.fromEntries(values) }];
    }),
  );
}

/** Every difference between what the core says and what the browser shows, as lines; and how much was compared. */
export function differences(parts: Outcomes, styles: Styles): { lines: string[]; compared: number } {
  const lines: string[] = [];
  let compared = 0;
  for (const [part, style] of Object.entries(styles)) {
    for (const [name, [computed, fromCore]] of Object.entries(style)) {
      compared++;
      const isPresence = name === 'display';
      if (isPresence ? (computed === 'none') === (fromCore === 'none') : agrees(name, computed, fromCore))
        continue;
      const outcome = parts[part]![name];
      lines.push(`${part}.${name}: core ${outcome?.value ?? ''} (${fromCore}), browser ${computed}`);
    }
  }
  return { lines, compared };
}
