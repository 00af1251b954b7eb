/** So many letters go to the database at once, unless a row alone has more. */
const PIECE_LETTERS = 2_000_000;

/** Rows in pieces that the database takes in one statement, of at most so many. */
export function inPieces<Row>(
  rows: readonly Row[],
  lettersOf: (row: Row) => number,
  most = Infinity,
): Row[][] {
  const pieces: Row[][] = [];
  let room = 0;
  for (const row of rows) {
    room -= lettersOf(row);
    if (room < 0 || pieces.length === 0 || pieces.at(-1)!.length === most) {
      pieces.push([]);
      room = PIECE_LETTERS - lettersOf(row);
    }
    pieces.at(-1)!.push(row);
  }
  return pieces;
}
