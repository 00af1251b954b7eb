export type Dialog = 'find' | 'history' | 'shortcuts' | 'unplaced' | null;
