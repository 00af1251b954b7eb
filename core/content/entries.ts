/** So many entries of a list are drawn; a check says where a sample has more. */
export const MAX_ENTRIES = 200;
