import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import type { WebDriver } from 'selenium-webdriver';
import { PATIENCE } from './patience';

type Files = Record<string, string>;

/** The files of the zip in a folder, or `null` while there is none or it is still being written. */
function readZip(folder: string): Files | null {
  const name = readdirSync(folder).find(file => file.endsWith('.zip'));
  if (name === undefined) return null;
  try {
    const files = unzipSync(new Uint8Array(readFileSync(join(folder, name))));
    return Object.fromEntries(Object.entries(files).map(([path, bytes]) => [path, strFromU8(bytes)]));
  } catch {
    return null;
  }
}

/** Waits for a download and gives its files as text by path. */
export async function downloadedZip(driver: WebDriver, folder: string): Promise<Files> {
  let files: Files | null = null;
  await driver.wait(
    () => Promise.resolve((files = readZip(folder)) !== null),
    PATIENCE,
    'no whole zip was downloaded',
  );
  return files!;
}
