import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from './free-port';

const root = process.cwd();

export const emptyFolder = (): string => mkdtempSync(join(tmpdir(), 'periwinkle-data-'));

/** A folder as a first start leaves it, where the tests have made one to copy (`scripts/test.mjs`): it starts sooner. */
function begunFolder(): string {
  const folder = emptyFolder();
  const begun = process.env['PERIWINKLE_BEGUN'];
  if (begun !== undefined) cpSync(begun, folder, { recursive: true });
  return folder;
}

/** "npm start" as a person runs it, on a data folder of its own. */
export class Application {
  private child: ChildProcess | null = null;
  /** The same at each start: to a browser another address is another application. */
  private port: number | null = null;
  output = '';

  constructor(
    readonly folder: string = begunFolder(),
    readonly environment: Readonly<Record<string, string>> = {},
  ) {}

  /** Starts and waits for the address. Rejects with everything printed when the start ends before. */
  async start(): Promise<string> {
    this.output = '';
    this.port ??= await freePort();
    const env = {
      ...process.env,
      PERIWINKLE_PORT: String(this.port),
      ...this.environment,
      PERIWINKLE_DATA: this.folder,
    };
    const child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: root,
      env,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.child = child;
    const address = new Promise<string>((resolve, reject) => {
      const read = (chunk: Buffer): void => {
        this.output += chunk.toString();
        const match = /Periwinkle is at (http:\S+)\//.exec(this.output);
        if (match) resolve(match[1]!);
      };
      child.stdout.on('data', read);
      child.stderr.on('data', read);
      child.once('close', code => reject(new Error(`ended with ${code}: ${this.output}`)));
    });
    return address;
  }

  /** Process ids of this start, as it notes them for whoever comes next. */
  processes(): { pid: number; server: number; database: number } {
    return JSON.parse(readFileSync(join(this.folder, 'running.json'), 'utf8')) as {
      pid: number;
      server: number;
      database: number;
    };
  }

  /** Ends as Ctrl-C does; gives the exit status. */
  async stop(signal: NodeJS.Signals = 'SIGINT'): Promise<number | null> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return child?.exitCode ?? null;
    const ended = this.ended();
    child.kill(signal);
    return ended;
  }

  ended(): Promise<number | null> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null)
      return Promise.resolve(child?.exitCode ?? null);
    return new Promise(resolve => child.once('close', resolve));
  }

  async remove(): Promise<void> {
    await this.stop();
    rmSync(this.folder, { recursive: true, force: true, maxRetries: 5 });
  }
}

/** Whether a process is there. */
export function isAlive(pid: number): boolean {
  try {
    // A zombie has ended; its parent has only not asked yet.
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'));
  } catch {
    return false;
  }
}
