import { converter, formatHex, formatHex8, parse } from 'culori';
import { propertyNamed } from '@periwinkle/core/rules/property-registry';
import type { Outcomes } from '@periwinkle/core/rules/resolve';

const toRgb = converter('rgb');

/**
 * Script for the page: computed styles of the parts of a field, by part and property. Gets the root element, the class of
 * each part and the properties wanted. Transitions are finished first, so that the end is read and not the way there.
 */
export const READ_STYLES = `
  const [root, wanted] = arguments;
  const scope = root.shadowRoot ?? root;
  (root.getRootNode().getAnimations?.() ?? []).concat(document.getAnimations()).forEach(each => each.finish());
  const result = {};
  for (const [part, { selector, properties }] of Object.entries(wanted)) {
    const element = scope.matches?.(selector) ? scope : scope.querySelector(selector);
    if (!element) continue;
    const style = getComputedStyle(element);
    result[part] = Object.fromEntries(properties.map(name => [name, style.getPropertyValue(name)]));
  }
  return result;`;

export type Styles = Record<string, Record<string, string>>;

/** A computed value in the core's settled form, so that both can be compared as text. */
function settled(property: string, computed: string): string {
  if (/color/.test(property)) {
    const color = parse(computed);
    if (!color) return computed;
    const { r, g, b, alpha = 1 } = toRgb(color);
    const clip = (part: number): number => Math.min(1, Math.max(0, part));
    const clipped = { mode: 'rgb', r: clip(r), g: clip(g), b: clip(b), alpha } as const;
    return alpha < 1 ? formatHex8(clipped) : formatHex(clipped);
  }
  const time = /^(-?[\d.]+)s$/.exec(computed);
  if (time) return `${Number((Number(time[1]) * 1000).toFixed(4))}ms`;
  const length = /^(-?[\d.]+(?:e-?\d+)?)px$/.exec(computed);
  if (length) return `${Number(Number(length[1]).toFixed(3))}px`;
  return computed;
}

const near = (a: string, b: string): boolean => {
  const [x, y] = [/^(-?[\d.]+)px$/.exec(a), /^(-?[\d.]+)px$/.exec(b)];
  // Layout rounds lengths to 1/64 px.
  if (x && y) return Math.abs(Number(x[1]) - Number(y[1])) <= 1 / 64;
  const [c, d] = [/^#[0-9a-f]{6,8}$/.test(a), /^#[0-9a-f]{6,8}$/.test(b)];
  if (c && d) return hexParts(a).every((part, index) => Math.abs(part - hexParts(b)[index]!) <= 1);
  return a === b;
};

const hexParts = (hex: string): number[] =>
  (hex.length === 7 ? `${hex}ff` : hex).match(/[0-9a-f]{2}/g)!.map(part => parseInt(part, 16));

/** Values that say the same in another way; how the browser writes what the core leaves as CSS text. */
function sameText(core: string, browser: string): boolean {
  const plain = (text: string): string =>
    text
      .toLowerCase()
      .replace(/["']/g, '')
      .replace(/oklch\([^)]*\)|#[0-9a-f]{6,8}|rgba?\([^)]*\)/g, color => settled('color', color))
      .replace(/\s+/g, ' ')
      .replace(/\s*([,()/])\s*/g, '$1')
      .replace(/\b0px\b/g, '0');
  const parts = (text: string): string =>
    plain(text)
      .split(',')
      .map(part => part.trim().split(' ').sort().join(' '))
      .join(',');
  return plain(core) === plain(browser) || parts(core) === parts(browser);
}

/** The CSS properties that show an outcome: the sides of a shorthand one by one, without those that have their own. */
function shownBy(property: string, outcomes: Readonly<Record<string, unknown>>): string[] {
  if (property === 'present') return ['display'];
  const { longhands } = propertyNamed(property)!;
  return longhands.length === 0 ? [property] : longhands.filter(name => !Object.hasOwn(outcomes, name));
}

function agrees(property: string, value: string, computed: string, fontSize: string): boolean {
  if (property === 'present') return (computed === 'none') === (value === 'false');
  // A plain number multiplies the font size; the browser shows the product.
  if (property === 'line-height' && /^[\d.]+$/.test(value))
    return near(`${Number(value) * parseFloat(fontSize)}px`, computed);
  return near(value, settled(property, computed)) || sameText(value, computed);
}

/** Every difference between what the core says and what the browser shows, as lines; and how much was compared. */
export function differences(parts: Outcomes, styles: Styles): { lines: string[]; compared: number } {
  const lines: string[] = [];
  let compared = 0;
  for (const [part, outcomes] of Object.entries(parts)) {
    const style = styles[part];
    // A part without content in this sample is not there.
    if (!style) continue;
    for (const [property, outcome] of Object.entries(outcomes)) {
      for (const name of shownBy(property, outcomes)) {
        compared++;
        const computed = style[name] ?? '';
        if (agrees(property, outcome.value, computed, style['font-size'] ?? '')) continue;
        lines.push(`${part}.${name}: core ${outcome.value} (${outcome.rule}), browser ${computed}`);
      }
    }
  }
  return { lines, compared };
}

/** What to read for a set of outcomes. */
export function wantedFrom(
  parts: Outcomes,
  classOf: (part: string) => string,
): Record<string, { selector: string; properties: string[] }> {
  return Object.fromEntries(
    Object.entries(parts).map(([part, outcomes]) => {
      const properties = Object.keys(outcomes).flatMap(name => shownBy(name, outcomes));
      return [
        part,
        { selector: `.${classOf(part)}`, properties: [...new Set([...properties, 'font-size'])] },
      ];
    }),
  );
}
