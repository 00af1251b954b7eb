import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import type { TokenModel } from '@periwinkle/core/tokens/token-model';

/** Contexts stand in the address as `in=theme:night`, so that a link shows what its sender saw. */
const CONTEXT_PARAMETER = 'in';

/** The chosen context of every modifier, unknown ones left out. */
export function useContexts(tokens: TokenModel): ContextInput {
  const [parameters] = useSearchParams();
  const text = parameters.get(CONTEXT_PARAMETER) ?? '';
  return useMemo(() => {
    const chosen = new Map(text.split(',').map(pair => pair.split(':') as [string, string]));
    const usual = tokens.usualInput();
    return Object.fromEntries(
      tokens.modifiers.map(({ name, contexts }) => {
        const wanted = chosen.get(name);
        return [name, wanted !== undefined && contexts.includes(wanted) ? wanted : usual[name]!];
      }),
    );
  }, [text, tokens]);
}

/** Address parameters that choose a context, for a link that keeps everything else. */
export function contextParameter(contexts: ContextInput, usual: ContextInput): string | null {
  const differing = Object.entries(contexts).filter(([name, context]) => usual[name] !== context);
  return differing.length === 0 ? null : differing.map(pair => pair.join(':')).join(',');
}

/** Which sample is drawn, where one was chosen: it goes along to other fields that have one of that name. */
const SAMPLE_PARAMETER = 'sample';

/** The part of the present address that every link inside the system carries along. */
export function useCarried(): string {
  const [parameters] = useSearchParams();
  const carried = [CONTEXT_PARAMETER, SAMPLE_PARAMETER].flatMap(name => {
    const value = parameters.get(name);
    return value === null
      ? []
      : [`${name}=${encodeURIComponent(value).replaceAll('%3A', ':').replaceAll('%2C', ',')}`];
  });
  return carried.length === 0 ? '' : `?${carried.join('&')}`;
}

export { CONTEXT_PARAMETER };
