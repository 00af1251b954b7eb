import { useEffect, useRef } from 'react';
import type { System } from '@periwinkle/core/components/system';
import { useStore } from '../data/system-context';
import { missingFonts } from '../specimen/fonts';

/** Nobody waits for it. */
const REST_MS = 1000;

/** Says once of each font that a system names first and that is not here. */
export function useMissingFonts({ tokens, components }: System): void {
  const store = useStore();
  const said = useRef(new Set<string>());
  useEffect(() => {
    const timer = setTimeout(() => {
      const missing = missingFonts(store.state().edited).filter(family => !said.current.has(family));
      if (missing.length === 0) return;
      for (const family of missing) said.current.add(family);
      const names = missing.map(family => `“${family}”`).join(', ');
      const [is, list] = missing.length === 1 ? ['is', 'its list'] : ['are', 'their lists'];
      const text = `${names} ${is} not on this machine: fields are drawn with what comes next in ${list}.`;
      store.say('lasting', text);
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [store, tokens, components]);
}
