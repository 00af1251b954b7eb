import type { SampleText } from '../../documents/component-document';
import type { Axis } from '../../space/axis';
import type { Combination } from '../../space/space';

/** A sample's text in a combination: where it depends on an axis, that of the value there, or none. A list is no text. */
export function sampleText(
  text: SampleText | readonly unknown[] | undefined,
  combination: Combination,
  axes: readonly Axis[],
): string | undefined {
  if (text === undefined || text === null || typeof text === 'string') return text ?? undefined;
  if (typeof text !== 'object' || isList(text)) return undefined;
  const axis = axisOfValues(Object.keys(text), axes);
  const value = axis && combination[axis.id];
  return value !== undefined && Object.hasOwn(text, value) ? text[value] : undefined;
}

/** All texts that a sample has of something, whatever they depend on. */
export function sampleTexts(text: SampleText | readonly unknown[] | undefined): string[] {
  if (typeof text === 'string') return [text];
  if (typeof text !== 'object' || text === null || isList(text)) return [];
  return Object.values(text);
}

const isList = (content: SampleText | readonly unknown[]): content is readonly unknown[] =>
  Array.isArray(content);

/** The axis that some values belong to: other axes may have a value of the same name (`none`), but hardly all of them. */
export function axisOfValues(values: readonly string[], axes: readonly Axis[]): Axis | undefined {
  const known = axes.map(axis => values.filter(value => axis.indexOf.has(value)).length);
  const most = Math.max(0, ...known);
  return most === 0 ? undefined : axes[known.indexOf(most)];
}
