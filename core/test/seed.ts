/** A new seed for each run, printed so that a run can be repeated with PERIWINKLE_SEED. */
export function freshSeed(name: string): number {
  const seed = Number(process.env['PERIWINKLE_SEED'] ?? (Date.now() ^ (process.pid << 8)) & 0x7fffffff);
  process.stderr.write(`${name}: PERIWINKLE_SEED=${seed}\n`);
  return seed;
}
