import { leftHere, noteLeft, noteReturning, reloadingFor } from './reloads';

/** What a browser keeps for a tab, or for all tabs of a site. */
function storage(): Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> {
  const kept = new Map<string, string>();
  return {
    getItem: key => kept.get(key) ?? null,
    setItem: (key, value) => void kept.set(key, value),
    removeItem: key => void kept.delete(key),
  };
}

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(globalThis, { sessionStorage: storage(), localStorage: storage() });
});

afterEach(() => {
  jest.useRealTimers();
  Reflect.deleteProperty(globalThis, 'sessionStorage');
  Reflect.deleteProperty(globalThis, 'localStorage');
});

test('a window that is loaded again is waited for, and one that was closed only for a while', () => {
  noteLeft('quayside', 'first');
  expect(reloadingFor('quayside')).toBeGreaterThan(0);
  jest.advanceTimersByTime(3000);
  expect(reloadingFor('quayside')).toBe(0);
});

test('a window whose first script runs is waited for anew, until its screen stands', () => {
  noteLeft('quayside', 'first');
  jest.advanceTimersByTime(2500);
  noteReturning('quayside');
  jest.advanceTimersByTime(2500);
  expect(reloadingFor('quayside')).toBe(500);
  expect(leftHere('quayside')).toBe('first');
});

test('a window that opens for the first time lets nobody wait', () => {
  noteReturning('quayside');
  expect(reloadingFor('quayside')).toBe(0);
});

test('what a window left in this tab is said once, and to its own system', () => {
  noteLeft('quayside', 'first');
  expect(leftHere('another')).toBeNull();
  expect(leftHere('quayside')).toBe('first');
  expect(leftHere('quayside')).toBeNull();
});

test('a browser that keeps nothing lets nobody wait', () => {
  Reflect.deleteProperty(globalThis, 'sessionStorage');
  Reflect.deleteProperty(globalThis, 'localStorage');
  noteLeft('quayside', 'first');
  noteReturning('quayside');
  expect(leftHere('quayside')).toBeNull();
  expect(reloadingFor('quayside')).toBe(0);
});
