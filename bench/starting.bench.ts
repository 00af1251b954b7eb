import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Application } from '../e2e/support/application';

/**
 * Starts that are killed at any moment, first starts among them, and many starts at once. `PERIWINKLE_KILLS` and `PERIWINKLE_TENFOLD` say how
 * often.
 */

const KILLS = Number(process.env['PERIWINKLE_KILLS'] ?? 30);
const TENFOLD = Number(process.env['PERIWINKLE_TENFOLD'] ?? 10);
/** A start takes about so long, the first about so much longer. */
const MOMENTS_MS = 4000;

const print = (line: string): void => void process.stdout.write(`${line}\n`);
const folder = (): string => mkdtempSync(join(tmpdir(), 'periwinkle-starting-'));
const systemsOf = async (address: string): Promise<number> =>
  ((await (await fetch(`${address}/api/systems`)).json()) as unknown[]).length;

let failed = 0;
let wrong = 0;
for (let round = 0; round < KILLS; round++) {
  // A new folder every third time: a first start is what is killed then.
  const app = new Application(folder());
  const kills = 1 + (round % 3);
  for (let kill = 0; kill < kills; kill++) {
    const started = app.start().catch(() => undefined);
    await new Promise(resolve => setTimeout(resolve, Math.random() * MOMENTS_MS));
    await app.stop('SIGKILL');
    await started;
  }
  try {
    if ((await systemsOf(await app.start())) !== 1) wrong++;
  } catch (error) {
    failed++;
    print(String(error));
  }
  await app.remove();
}
print(`${KILLS} starts after kills at any moment: ${failed} failed, ${wrong} with other than one system`);

let none = 0;
let several = 0;
let unclear = 0;
for (let round = 0; round < TENFOLD; round++) {
  const first = new Application(folder());
  const all = [first, ...Array.from({ length: 9 }, () => new Application(first.folder))];
  const outcomes = await Promise.allSettled(all.map(each => each.start()));
  const running = outcomes.filter(({ status }) => status === 'fulfilled').length;
  if (running === 0) none++;
  if (running > 1) several++;
  unclear += outcomes.filter(
    each => each.status === 'rejected' && !String(each.reason).includes('is running already'),
  ).length;
  await Promise.all(all.map(each => each.stop()));
  rmSync(first.folder, { recursive: true, force: true, maxRetries: 5 });
}
print(
  `${TENFOLD} times ten starts at once: ${none} times none ran, ${several} times several, ${unclear} ended otherwise than by saying so`,
);
