import { useSearchParams } from 'react-router';

const OPENED = 'open';

/** Which line of a sheet lies open, so that it can be linked: `axis:size`. */
export function useOpened(): readonly [opened: string | null, open: (what: string | null) => void] {
  const [parameters, setParameters] = useSearchParams();
  return [
    parameters.get(OPENED),
    what =>
      setParameters(before => {
        const after = new URLSearchParams(before);
        if (what === null) after.delete(OPENED);
        else after.set(OPENED, what);
        return after;
      }),
  ];
}
