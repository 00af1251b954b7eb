import { useLayoutEffect, type CSSProperties, type ReactNode, type Ref } from 'react';
import { namesOf } from '@periwinkle/core/render/names';
import type { System } from '@periwinkle/core/components/system';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { pageColor } from './page-color';
import { useSpecimenSheets } from './specimen-styles';

/**
 * A place where specimens stand: the system's page behind them, the tokens declared on it, in the chosen contexts. All places of the
 * same contexts share one declaration of the tokens.
 */
export function PreviewSurface({
  system,
  contexts,
  className = '',
  label,
  frame,
  children,
}: {
  system: System;
  contexts: ContextInput;
  className?: string;
  /** Names a surface that scrolls, which keys must be able to reach. */
  label?: string;
  frame?: Ref<HTMLDivElement>;
  children: ReactNode;
}) {
  const names = namesOf(system);
  const attributes = Object.fromEntries(
    Object.entries(contexts).map(([name, context]) => [names.context(name), context]),
  );
  const style = { '--surface': pageColor(system, contexts) } as CSSProperties;
  const sheets = useSpecimenSheets();
  const tokens = sheets.tokensIn(contexts);
  // Afterwards it follows the system by itself.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  useLayoutEffect(() => tokens.use(system), [tokens]);
  return (
    <div
      ref={frame}
      className={`surface ${className}`}
      style={style}
      data-tokens={tokens.name}
      {...attributes}
      {...(label ? { role: 'region', tabIndex: 0, 'aria-label': label } : {})}
    >
      {children}
    </div>
  );
}
