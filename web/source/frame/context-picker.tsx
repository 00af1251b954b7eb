import { useSearchParams } from 'react-router';
import type { TokenModel } from '@periwinkle/core/tokens/token-model';
import { CONTEXT_PARAMETER, contextParameter, useContexts } from '../data/address';

/** One choice per modifier, `theme day night`; it holds for every preview on every screen. */
export function ContextPicker({ tokens }: { tokens: TokenModel }) {
  const contexts = useContexts(tokens);
  const [, setParameters] = useSearchParams();
  const choose = (modifier: string, context: string): void => {
    const value = contextParameter({ ...contexts, [modifier]: context }, tokens.usualInput());
    setParameters(
      before => {
        const next = new URLSearchParams(before);
        if (value === null) next.delete(CONTEXT_PARAMETER);
        else next.set(CONTEXT_PARAMETER, value);
        return next;
      },
      { replace: true },
    );
  };
  return (
    <>
      {tokens.modifiers.map(({ name, contexts: all }) => (
        <span key={name} className="pick" role="group" aria-label={name}>
          {name}
          {all.map(context => (
            <button
              key={context}
              type="button"
              className={contexts[name] === context ? 'word' : 'word off'}
              aria-pressed={contexts[name] === context}
              onClick={() => choose(name, context)}
            >
              {context}
            </button>
          ))}
        </span>
      ))}
    </>
  );
}
