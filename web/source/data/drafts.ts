/** Texts that are being written in this window; each keeps what it has when it is called, and gives whether nothing is left that is not kept. */
export const openDrafts = new Set<() => boolean>();
