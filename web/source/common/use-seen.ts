import { useEffect, useState, type RefObject } from 'react';

/** So far below what is shown something is made ready, so that nobody comes to it too soon. */
const AHEAD = '400px';

/** Whether an element has been on the screen, or nearly. */
export function useSeen(element: RefObject<Element | null>): boolean {
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    if (seen || !element.current) return;
    const observer = new IntersectionObserver(
      entries => {
        if (entries.some(({ isIntersecting }) => isIntersecting)) setSeen(true);
      },
      { rootMargin: AHEAD },
    );
    observer.observe(element.current);
    return () => observer.disconnect();
  }, [seen, element]);
  return seen;
}
