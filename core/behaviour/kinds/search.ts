import { TEXT, type ValueKind } from './value-kind';

export const search: ValueKind = {
  ...TEXT,
  key: (key, value) => (key === 'Escape' && value !== '' ? '' : undefined),
  parts: { clear: () => '' },
};
