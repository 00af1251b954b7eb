import type { Request, RequestHandler, Response } from 'express';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { answerProblem } from '../http/answers';
import { problemText } from '../http/problem-text';
import { Refusal } from '../http/refusal';

/** How a request that sends something is stopped, let go on, and ended. */
export interface Sender {
  /** Small ones are not made to wait. */
  readonly isSmall: boolean;
  readonly pause: () => void;
  readonly resume: () => void;
  readonly giveWay: () => void;
}

export interface Upload {
  /** Call with each piece that has come. */
  readonly came: (bytes: number) => void;
  readonly end: () => void;
}

interface Going extends Sender {
  come: number;
  /** When it had last sent a step more, and what came since. */
  since: number;
  step: number;
  isWaiting: boolean;
}

/** An upload that has not sent so much more for so long stands still. */
const STEP_BYTES = 16_000;
/** Of a piece: who goes on takes so much room at least. */
const PIECE_BYTES = 64_000;

/**
 * What has come of requests that are still being sent. Where it is more than it may be, all wait but the first, which has to come to its end;
 * and those give way that hold something and have stood still for longer than `patienceMs`, first whoever holds most.
 */
export class Uploads {
  /** In the order in which they began. */
  private readonly going = new Set<Going>();
  private total = 0;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly most: number,
    private readonly patienceMs: number,
  ) {}

  begin(sender: Sender): Upload {
    const own: Going = { ...sender, come: 0, since: performance.now(), step: 0, isWaiting: false };
    this.going.add(own);
    return { came: bytes => this.count(own, bytes), end: () => this.leave(own) };
  }

  private count(one: Going, bytes: number): void {
    if (!this.going.has(one)) return;
    this.total += bytes;
    one.come += bytes;
    one.step += bytes;
    if (one.step >= STEP_BYTES) goesOn(one);
    if (this.total <= this.most) return;
    if (!one.isSmall && !this.isFirst(one)) {
      one.isWaiting = true;
      one.pause();
    }
    this.look();
  }

  /** Whether it is the first of those that have sent anything: who has sent nothing may never do so. */
  private isFirst(one: Going): boolean {
    for (const each of this.going) if (!each.isSmall && each.come > 0) return each === one;
    return false;
  }

  private leave(one: Going): void {
    if (!this.going.delete(one)) return;
    this.total -= one.come;
    this.look();
  }

  /** Lets go on whom there is room for; where that leaves others, has those end that stand still. */
  private look(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    for (;;) {
      const isCrowded = this.letGoOn();
      if (!isCrowded) return;
      const still = this.stillest();
      if (!still) return;
      const rest = still.since + this.patienceMs - performance.now();
      if (rest > 0) {
        this.timer = setTimeout(() => this.look(), rest).unref();
        return;
      }
      this.going.delete(still);
      this.total -= still.come;
      still.giveWay();
    }
  }

  /** Whether there is less room than is needed. */
  private letGoOn(): boolean {
    let room = this.most - this.total;
    let isCrowded = room < 0;
    for (const each of this.going) {
      if (!each.isWaiting) continue;
      if (room < PIECE_BYTES && !this.isFirst(each)) {
        isCrowded = true;
        break;
      }
      room -= PIECE_BYTES;
      each.isWaiting = false;
      goesOn(each);
      each.resume();
    }
    return isCrowded;
  }

  /** Of those who hold something and could send: who has had its time and holds most, or who will have had it next. */
  private stillest(): Going | null {
    const due = performance.now() - this.patienceMs;
    let found: Going | null = null;
    for (const each of this.going) {
      if (each.isWaiting || each.come === 0) continue;
      const isDue = each.since <= due;
      if (!found || (isDue ? found.since > due || each.come > found.come : each.since < found.since))
        found = each;
    }
    return found;
  }
}

function goesOn(one: Going): void {
  one.since = performance.now();
  one.step = 0;
}

/** What is smaller need not wait for anybody. */
const SMALL_BYTES = 64_000;
const PATIENCE_MS = 500;

/** Who sends so many pieces of fewer bytes than these in the mean has others wait for next to nothing: each piece takes as long as many bytes. */
const MANY_PIECES = 2_000;
const PIECE_LEAST_BYTES = 64;
/** Time to read the answer, before what else comes is cut off. */
const CUT_MS = 500;

/** What is sent is read as far as there is room for it: others wait, and what comes too slowly, or in crumbs, gives way to them. */
export function uploadsInTurn(): RequestHandler {
  const uploads = new Uploads(QUOTAS.lettersUnderWay, PATIENCE_MS);
  return (request, response, next) => {
    const { 'transfer-encoding': transfer, 'content-length': length } = request.headers;
    const bytes = transfer === undefined ? Number(length ?? 0) : Infinity;
    if (bytes === 0) return next();
    const upload = uploads.begin({
      isSmall: bytes <= SMALL_BYTES,
      pause: () => request.pause(),
      resume: () => request.resume(),
      giveWay: () => request.destroy(),
    });
    let pieces = 0;
    let come = 0;
    // Whoever reads it begins in the same turn, so that nothing is missed.
    request.on('data', (chunk: Buffer) => {
      pieces++;
      come += chunk.length;
      if (pieces > MANY_PIECES && come < pieces * PIECE_LEAST_BYTES) refuseCrumbs(request, response);
      else upload.came(chunk.length);
    });
    request.once('end', upload.end).once('close', upload.end);
    next();
  };
}

/** Answers before all has come; none of the rest is read. */
function refuseCrumbs(request: Request, response: Response): void {
  request.pause();
  if (response.headersSent) return;
  const refusal = new Refusal(
    400,
    'in-crumbs',
    'In too many pieces',
    `This was sent in more than ${MANY_PIECES} pieces of a few bytes each; send it as a whole, or in larger ones.`,
  );
  answerProblem(response, refusal.status, problemText(refusal));
  setTimeout(() => request.destroy(), CUT_MS).unref();
}
