import { useLayoutEffect, useMemo, useRef, type CSSProperties, type ReactNode } from 'react';
import { namesOf } from '@periwinkle/core/emit/names';
import { tokenDeclarations } from '@periwinkle/core/emit/tokens-css';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { pageColor } from './page-color';

/**
 * A place where specimens stand: the system's page behind them, the tokens declared on it, in the chosen contexts. They
 * are declared on the element itself, where a changed value costs the browser least.
 */
export function PreviewSurface({
  system,
  contexts,
  className = '',
  label,
  children,
}: {
  system: System;
  contexts: ContextInput;
  className?: string;
  /** Names a surface that scrolls, which keys must be able to reach. */
  label?: string;
  children: ReactNode;
}) {
  const names = namesOf(system);
  const attributes = Object.fromEntries(
    Object.entries(contexts).map(([name, context]) => [names.context(name), context]),
  );
  const style = { '--surface': pageColor(system, contexts) } as CSSProperties;
  const element = useRef<HTMLDivElement>(null);
  const { tokens, prefix } = system;
  const declarations = useMemo(() => tokenDeclarations(tokens, prefix, contexts), [tokens, prefix, contexts]);
  const declared = useRef<ReadonlyMap<string, string>>(new Map());
  useLayoutEffect(() => {
    const own = element.current!.style;
    for (const [name, value] of declarations)
      if (declared.current.get(name) !== value) own.setProperty(name, value);
    for (const name of declared.current.keys()) if (!declarations.has(name)) own.removeProperty(name);
    declared.current = declarations;
  }, [declarations]);
  return (
    <div
      ref={element}
      className={`surface ${className}`}
      style={style}
      {...attributes}
      {...(label ? { role: 'region', tabIndex: 0, 'aria-label': label } : {})}
    >
      {children}
    </div>
  );
}
