/**
 * Rows in which every pair of columns shows every pair of values exactly once: `q²` rows for at most `q + 1` columns of at
 * most `q` values each, `q` the least prime that serves (R. C. Bose, "On the Application of the Properties of Galois
 * Fields…", 1938). Values beyond a column's own are folded back into it. `null` for more columns.
 */
export function orthogonalRows(sizes: readonly number[]): number[][] | null {
  let q = Math.max(2, ...sizes);
  while (!isPrime(q)) q++;
  if (sizes.length > q + 1) return null;
  return Array.from({ length: q * q }, (_, row) => {
    const [i, j] = [Math.floor(row / q), row % q];
    return sizes.map((size, column) => (column === q ? j : (i + column * j) % q) % size);
  });
}

function isPrime(number: number): boolean {
  for (let divisor = 2; divisor * divisor <= number; divisor++) if (number % divisor === 0) return false;
  return number > 1;
}
