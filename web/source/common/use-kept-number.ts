import { useState } from 'react';

/** A number that this browser keeps under a name, if it keeps anything; `null` until one is set. */
export function useKeptNumber(name: string): readonly [number | null, (value: number | null) => void] {
  const key = `periwinkle:${name}`;
  const [value, setValue] = useState(() => read(key));
  const keep = (next: number | null): void => {
    setValue(next);
    try {
      if (next === null) localStorage.removeItem(key);
      else localStorage.setItem(key, String(next));
    } catch {
      // It holds for this page.
    }
  };
  return [value, keep];
}

function read(key: string): number | null {
  try {
    const text = localStorage.getItem(key);
    const value = text === null ? NaN : Number(text);
    return Number.isFinite(value) ? value : null;
  } catch {
    return null;
  }
}
