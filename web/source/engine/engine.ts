import type { Progress } from '@periwinkle/core/cascade/questions/rules-report';
import { shared } from '@periwinkle/core/json/structural-sharing';
import { compileSystem, type System } from '@periwinkle/core/components/system';
import { ANSWERING, type QuestionName, type Questions } from './questions';

/** Documents that have changed since the last question: their new bodies, `undefined` for those that are gone. */
export type DocumentChanges = readonly (readonly [path: string, body: unknown])[];

/** Who asks, and the running number of the question among all that they ask. */
export interface Ticket {
  readonly asker: string;
  readonly number: number;
}

const SLICE_MS = 12;

/**
 * Answers questions about a system on its own thread. It keeps the system compiled; documents that come in share with the
 * ones before whatever is equal, so that only what depends on a change is computed again. A question is given up as soon as
 * its asker has asked another.
 */
export class Engine {
  private documents: ReadonlyMap<string, unknown> = new Map();
  private system: System | undefined;
  private readonly latest = new Map<string, number>();

  /** The answer, or `null` when the question was given up. */
  async ask<Name extends QuestionName>(
    name: Name,
    asks: Questions[Name]['asks'],
    changes: DocumentChanges,
    { asker, number }: Ticket,
    onProgress: (progress: Progress) => void,
  ): Promise<{ answer: Questions[Name]['answers'] } | null> {
    this.take(changes);
    this.latest.set(asker, number);
    const steps = ANSWERING[name](this.compiled(), asks);
    let slice = performance.now();
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) return { answer: step.value };
      if (performance.now() - slice < SLICE_MS) continue;
      onProgress(step.value);
      await nextTask();
      if (this.latest.get(asker) !== number) return null;
      slice = performance.now();
    }
  }

  /** Gives up whatever an asker has asked. */
  stop(asker: string): void {
    this.latest.delete(asker);
  }

  private take(changes: DocumentChanges): void {
    if (changes.length === 0) return;
    const documents = new Map(this.documents);
    for (const [path, body] of changes) {
      if (body === undefined) documents.delete(path);
      else documents.set(path, shared(documents.get(path), body));
    }
    this.documents = documents;
  }

  private compiled(): System {
    if (this.system?.documents !== this.documents) this.system = compileSystem(this.documents);
    return this.system!;
  }
}

/** Lets messages in that have come meanwhile. */
const nextTask = (): Promise<void> => new Promise(resolve => setTimeout(resolve, 0));
