import { proxy, wrap, type Remote } from 'comlink';
import type { Documents } from '@periwinkle/core/documents/document-kinds';
import type { Progress } from '@periwinkle/core/cascade/questions/rules-report';
import type { DocumentChanges, Engine } from './engine';
import type { QuestionName, Questions } from './questions';

/** Asks the engine in its worker. Only documents that have changed since the last question are sent along. */
export class EngineClient {
  private readonly engine: Remote<Engine>;
  private readonly worker: Worker;
  private known: Documents = new Map();
  private number = 0;

  constructor() {
    this.worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
    this.engine = wrap<Engine>(this.worker);
  }

  /** The answer; `null` when the same asker has asked again or stopped meanwhile. */
  async ask<Name extends QuestionName>(
    name: Name,
    asks: Questions[Name]['asks'],
    documents: Documents,
    asker: string,
    onProgress: (progress: Progress) => void,
  ): Promise<{ answer: Questions[Name]['answers'] } | null> {
    const changes = changesBetween(this.known, documents);
    this.known = documents;
    const ticket = { asker, number: ++this.number };
    const ask = this.engine.ask as unknown as Engine['ask'];
    return ask(name, asks, changes, ticket, proxy(onProgress));
  }

  stop(asker: string): void {
    void this.engine.stop(asker);
  }

  close(): void {
    this.worker.terminate();
  }
}

function changesBetween(before: Documents, after: Documents): DocumentChanges {
  return [
    ...[...before.keys()].filter(path => !after.has(path)).map(path => [path, undefined] as const),
    ...[...after].filter(([path, body]) => before.get(path) !== body),
  ];
}
