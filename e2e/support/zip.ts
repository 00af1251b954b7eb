import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import type { WebDriver } from 'selenium-webdriver';

/** Waits for a download and gives its files as text by path. */
export async function downloadedZip(driver: WebDriver, folder: string): Promise<Record<string, string>> {
  const name = (): string | undefined => readdirSync(folder).find(file => file.endsWith('.zip'));
  await driver.wait(
    () => Promise.resolve(name() !== undefined && existsSync(join(folder, name()!))),
    15_000,
    'no zip was downloaded',
  );
  const files = unzipSync(new Uint8Array(readFileSync(join(folder, name()!))));
  return Object.fromEntries(Object.entries(files).map(([path, bytes]) => [path, strFromU8(bytes)]));
}
