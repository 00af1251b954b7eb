import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { System } from '@periwinkle/core/components/system';
import { delivery } from '@periwinkle/core/runtime/delivery';

/** The outputs of a system in a folder of their own, as a product developer would unpack them. */
export class Delivery {
  readonly folder = mkdtempSync(join(tmpdir(), 'periwinkle-delivery-'));

  constructor(system: System) {
    for (const { path, text } of delivery(system)) this.write(path, text);
  }

  /** Puts a file of one's own beside them; gives its address. */
  write(path: string, text: string): string {
    const file = join(this.folder, path);
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, text);
    return this.address(path);
  }

  address(path: string): string {
    return pathToFileURL(join(this.folder, path)).href;
  }

  remove(): void {
    rmSync(this.folder, { recursive: true, force: true });
  }
}
