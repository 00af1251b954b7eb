import { useLayoutEffect, useRef, useState } from 'react';

/** Functions that stay the same objects and do what the latest ones given do: for children that are drawn anew only when they differ. */
export function useLatest<Acts extends Readonly<Record<string, (...given: never[]) => void>>>(
  acts: Acts,
): Acts {
  const latest = useRef(acts);
  useLayoutEffect(() => {
    latest.current = acts;
  });
  const [stable] = useState(
    () =>
      Object.fromEntries(
        Object.keys(acts).map(name => [name, (...given: never[]) => latest.current[name]!(...given)]),
      ) as Acts,
  );
  return stable;
}
