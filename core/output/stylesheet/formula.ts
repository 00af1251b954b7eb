/** A condition on one element, as compound selectors can say it. */
export type Formula =
  | { readonly kind: 'true' | 'false' }
  | { readonly kind: 'atom'; readonly selector: string }
  | { readonly kind: 'not'; readonly inner: Formula }
  | { readonly kind: 'all' | 'any'; readonly parts: readonly Formula[] };

export const TRUE: Formula = { kind: 'true' };
export const FALSE: Formula = { kind: 'false' };
export const atom = (selector: string): Formula => ({ kind: 'atom', selector });

export function not(inner: Formula): Formula {
  if (inner.kind === 'true') return FALSE;
  if (inner.kind === 'false') return TRUE;
  if (inner.kind === 'not') return inner.inner;
  return { kind: 'not', inner };
}

export function all(...parts: readonly Formula[]): Formula {
  const kept = parts
    .flatMap(part => (part.kind === 'all' ? part.parts : [part]))
    .filter(part => part.kind !== 'true');
  if (kept.some(part => part.kind === 'false')) return FALSE;
  return kept.length === 0 ? TRUE : kept.length === 1 ? kept[0]! : { kind: 'all', parts: kept };
}

export function any(...parts: readonly Formula[]): Formula {
  const kept = parts
    .flatMap(part => (part.kind === 'any' ? part.parts : [part]))
    .filter(part => part.kind !== 'false');
  if (kept.some(part => part.kind === 'true')) return TRUE;
  return kept.length === 0 ? FALSE : kept.length === 1 ? kept[0]! : { kind: 'any', parts: kept };
}

/** The formula as a list of compound selectors: what stands for the element when any of them matches. */
export function selectorList(formula: Formula): string[] {
  return formula.kind === 'any' ? formula.parts.map(compound) : [compound(formula)];
}

/** The formula as one compound selector (Selectors 4); `""` when it always holds. */
export function compound(formula: Formula): string {
  switch (formula.kind) {
    case 'true':
      return '';
    case 'false':
      return ':not(*)';
    case 'atom':
      return formula.selector;
    case 'not':
      return negated(formula.inner);
    case 'all':
      return allText(formula.parts);
    case 'any':
      return `:is(${formula.parts.map(compound).join(', ')})`;
  }
}

function negated(inner: Formula): string {
  const text = selectorList(inner).join(', ');
  // `:not(:not(x))` would say the same at greater length.
  const double = /^:not\((.*)\)$/.exec(text);
  return double && inner.kind === 'atom' && balanced(double[1]!) ? double[1]! : `:not(${text})`;
}

function balanced(text: string): boolean {
  let depth = 0;
  for (const char of text) {
    if (char === '(') depth++;
    if (char === ')' && --depth < 0) return false;
  }
  return depth === 0 && !text.includes(',');
}

/** Several negations stand in one `:not()`. */
function allText(parts: readonly Formula[]): string {
  const plain = parts.filter(part => part.kind !== 'not').map(compound);
  const negations = parts.flatMap(part => (part.kind === 'not' ? selectorList(part.inner) : []));
  const single = parts.filter(part => part.kind === 'not');
  const text =
    single.length === 1 ? compound(single[0]!) : negations.length > 0 ? `:not(${negations.join(', ')})` : '';
  return plain.join('') + text;
}
