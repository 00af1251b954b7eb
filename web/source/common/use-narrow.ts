import { useSyncExternalStore } from 'react';

const NARROW = matchMedia('(max-width: 1240px)');

/** Whether the page is narrower than screens are made for first. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    listener => {
      NARROW.addEventListener('change', listener);
      return () => NARROW.removeEventListener('change', listener);
    },
    () => NARROW.matches,
  );
