import type { CSSProperties, ReactNode } from 'react';
import { contextAttribute } from '@periwinkle/core/emit/tokens-css';
import type { ContextInput } from '@periwinkle/core/tokens/resolver';
import type { System } from '@periwinkle/core/rules/system';
import { pageColor } from './page-color';
import { TOKENS_CLASS } from './specimen-styles';

/** A place where specimens stand: the system's page behind them, the tokens declared on it, in the chosen contexts. */
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
  const attributes = Object.fromEntries(
    Object.entries(contexts).map(([name, context]) => [contextAttribute(name), context]),
  );
  const style = { '--surface': pageColor(system, contexts) } as CSSProperties;
  return (
    <div
      className={`${TOKENS_CLASS} ${className}`}
      style={style}
      {...attributes}
      {...(label ? { role: 'region', tabIndex: 0, 'aria-label': label } : {})}
    >
      {children}
    </div>
  );
}
