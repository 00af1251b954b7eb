import { Key, type WebDriver, type WebElement } from 'selenium-webdriver';

/**
 * What one does by hand, with the mouse or with the keyboard alone. Every press of a button, every key that is no letter and every text that is
 * typed is an interaction; the keys that only bring the focus somewhere are counted apart.
 */
export interface Hand {
  readonly interactions: number;
  readonly steps: number;
  press(element: WebElement | Promise<WebElement>): Promise<void>;
  keys(...keys: string[]): Promise<void>;
  /** Goes to a line and writes it anew. */
  write(element: WebElement | Promise<WebElement>, text: string, ...keys: string[]): Promise<void>;
}

abstract class AnyHand implements Hand {
  interactions = 0;
  steps = 0;
  constructor(protected readonly driver: WebDriver) {}

  abstract press(element: WebElement | Promise<WebElement>): Promise<void>;
  /** Brings the focus to a line. */
  protected abstract enter(line: WebElement): Promise<void>;

  async keys(...keys: string[]): Promise<void> {
    await this.send(...keys);
    this.interactions += keys.length;
  }

  async write(element: WebElement | Promise<WebElement>, text: string, ...keys: string[]): Promise<void> {
    const line = await element;
    await this.enter(line);
    const holds = await this.driver.executeScript<boolean>(
      `const { value, selectionStart, selectionEnd } = arguments[0];
       return value !== '' && selectionEnd - selectionStart < value.length`,
      line,
    );
    if (holds) {
      await this.driver
        .actions({ async: true })
        .keyDown(Key.CONTROL)
        .sendKeys('a')
        .keyUp(Key.CONTROL)
        .perform();
      this.interactions++;
    }
    await this.keys(text, ...keys);
  }

  protected send(...keys: string[]): Promise<void> {
    return this.driver
      .actions({ async: true })
      .sendKeys(...keys)
      .perform();
  }
}

export class Mouse extends AnyHand {
  async press(element: WebElement | Promise<WebElement>): Promise<void> {
    const found = await element;
    await this.driver.executeScript(`arguments[0].scrollIntoView({ block: 'center' })`, found);
    await found.click();
    this.interactions++;
  }

  protected enter(line: WebElement): Promise<void> {
    return this.press(line);
  }
}

const KEYS = {
  TAB: Key.TAB,
  UP: Key.ARROW_UP,
  DOWN: Key.ARROW_DOWN,
  LEFT: Key.ARROW_LEFT,
  RIGHT: Key.ARROW_RIGHT,
  PAGE_UP: Key.PAGE_UP,
  PAGE_DOWN: Key.PAGE_DOWN,
};

/** Steps after which something counts as not to be reached. */
const PATIENT_STEPS = 300;

/** Goes wherever it goes by Tab, and by arrows within what has one stop for many. */
export class Keyboard extends AnyHand {
  async press(element: WebElement | Promise<WebElement>): Promise<void> {
    const found = await element;
    const shortcut = await this.driver.executeScript<string | null>(SHORTCUT, found);
    if (shortcut !== null) return this.keys(shortcut);
    const chosenByArrows = await this.reach(found);
    if (chosenByArrows) return;
    await this.keys(Key.ENTER);
  }

  protected async enter(line: WebElement): Promise<void> {
    await this.reach(line);
  }

  /** Whether being there is already having chosen it, as with radio buttons. */
  private async reach(target: WebElement): Promise<boolean> {
    for (let step = 0; step < PATIENT_STEPS; step++) {
      const { key, chosen } = await this.driver.executeScript<{ key: string | null; chosen: boolean }>(
        NEXT_KEY,
        target,
        KEYS,
      );
      if (key === null) return chosen;
      if (key === 'back')
        await this.driver
          .actions({ async: true })
          .keyDown(Key.SHIFT)
          .sendKeys(Key.TAB)
          .keyUp(Key.SHIFT)
          .perform();
      else await this.send(key);
      this.steps++;
    }
    const [wanted, here] = await this.driver.executeScript<[string, string]>(
      `return [arguments[0], document.activeElement].map(each => each?.outerHTML.slice(0, 200))`,
      target,
    );
    throw new Error(`not reached with the keyboard: ${wanted}; the focus is on ${here}`);
  }
}

/** The key that a sheet has of its own, which works where one does not type. */
const SHORTCUT = `
  const [target] = arguments;
  if (document.activeElement?.matches('input, textarea, select')) return null;
  return target.closest('.sheets a') ? target.title.split(' ')[1] : null;
`;

/** The key that brings the focus nearer to an element, or none where it is. */
const NEXT_KEY = `
  const [target, keys] = arguments;
  const here = document.activeElement;
  const wanted = target.matches('label') ? target.control : (target.closest('button, a') ?? target);
  if (here === wanted) return { key: null, chosen: wanted.type === 'radio' };
  const isBehind = (one, other) => one.compareDocumentPosition(other) & Node.DOCUMENT_POSITION_FOLLOWING;
  const isRadioWith = other => wanted.type === 'radio' && other.type === 'radio' && other.name === wanted.name;
  if (isRadioWith(here)) return { key: isBehind(here, wanted) ? keys.DOWN : keys.UP };
  const group = element =>
    element.matches('[data-row], .dropdown-item') ? element.closest('[role=grid], .dropdown-menu, .ledger') : null;
  const partOf = element => element.closest('[data-property]')?.dataset.property.split('.')[0];
  if (group(here) && group(here) === group(wanted)) {
    if (partOf(here) !== partOf(wanted)) return { key: isBehind(here, wanted) ? keys.PAGE_DOWN : keys.PAGE_UP };
    const from = here.getBoundingClientRect();
    const to = wanted.getBoundingClientRect();
    if (to.top >= from.bottom - 2) return { key: keys.DOWN };
    if (to.bottom <= from.top + 2) return { key: keys.UP };
    return { key: to.left > from.left ? keys.RIGHT : keys.LEFT };
  }
  if (here === document.body) return { key: keys.TAB };
  // Where Tab comes to, of what has one stop for many.
  const stop = wanted.type === 'radio'
    ? [...document.querySelectorAll('input[type=radio]:checked')].find(isRadioWith) ?? wanted
    : wanted.tabIndex < 0 ? (group(wanted)?.querySelector('[tabindex="0"]') ?? wanted) : wanted;
  return { key: isBehind(here, stop) ? keys.TAB : 'back' };
`;
