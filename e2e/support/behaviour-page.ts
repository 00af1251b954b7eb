import type { WebDriver } from 'selenium-webdriver';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { readAct, type Act } from '@periwinkle/core/behaviour/acts';
import { isPicked } from '@periwinkle/core/behaviour/input-types';
import type { Plan } from '@periwinkle/core/behaviour/plan';
import { named, planOf } from '@periwinkle/core/behaviour/make-plan';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import { exampleMarkup } from '@periwinkle/core/output/page/component-page';
import { namesOf } from '@periwinkle/core/render/names';
import { stateAxis } from '@periwinkle/core/space/state-catalogue';

/** What a page shows of a field after an act. */
export interface Found {
  readonly value: string;
  readonly focus: string | null;
  readonly combination: Readonly<Record<string, string>>;
  readonly messages: readonly string[];
  readonly announced: readonly string[];
}

/** The page around a field: something before it and behind it to go to, a form, a clock that a test moves. */
export function behaviourPage(
  system: System,
  component: Component,
  sample: string | undefined,
  given: Readonly<Record<string, string>>,
  value: string,
): string {
  const markup = exampleMarkup(system, component, { ...given, content: 'empty' }, sample, 'f');
  return `<!doctype html><html lang="en"><head><meta charset="utf-8">
<link rel="stylesheet" href="css/tokens.css"><link rel="stylesheet" href="css/${component.id}.css">
<style>body { margin: 40px; width: 420px } button.edge { display: block; margin: 20px 0 }</style>
<script>
  // Time goes on when the test says so.
  window.clock = { now: 0, timers: [] };
  performance.now = () => clock.now;
  window.setTimeout = (run, after = 0) => { const id = clock.timers.length + 1; clock.timers.push({ id, at: clock.now + after, run }); return id; };
  window.clearTimeout = id => { clock.timers = clock.timers.filter(each => each.id !== id); };
  window.advance = ms => {
    const end = clock.now + ms;
    for (;;) {
      const [next] = clock.timers.filter(each => each.at <= end).sort((a, b) => a.at - b.at);
      if (!next) break;
      clock.timers = clock.timers.filter(each => each !== next);
      clock.now = Math.max(clock.now, next.at);
      next.run();
    }
    clock.now = end;
  };
</script>
</head><body><button type="button" class="edge" id="before">before</button><form id="form" autocomplete="off">${markup}<button hidden></button></form>
<button type="button" class="edge" id="after">after</button>
<script type="module">
  import { attach } from './behaviour/${component.id}.js';
  const root = document.querySelector('#form > *');
  window.asked = [];
  window.heard = [];
  window.field = attach(root, {
    value: ${JSON.stringify(value)},
    ask: (ask, value) => new Promise(resolve => asked.push({ ask, value, resolve })),
  });
  const hear = new MutationObserver(changes => {
    for (const { target } of changes) {
      const live = (target.closest ? target : target.parentElement)?.closest('[role="alert"], [role="status"]');
      if (live && live.textContent.trim() !== '') heard.push(live.textContent.replaceAll('\\u00a0', '').trim());
    }
  });
  hear.observe(root, { subtree: true, childList: true, characterData: true });
  document.getElementById('form').addEventListener('submit', event => event.preventDefault());
  window.ready = true;
</script></body></html>`;
}

/** Reads, in the page, where the field is: by its elements and what a browser finds of them alone. */
const READ = `
  const [classes, axes, messages, control] = arguments;
  const root = document.querySelector('#form > *');
  const first = part => root.classList.contains(classes[part]) ? root : root.querySelector('.' + classes[part]);
  const bearer = control && first(control);
  const holds = ({ on, test }) =>
    on === 'inside' ? root.querySelector(test) !== null || root.matches(test)
    : (on === 'root' ? root : bearer ?? root).matches(test);
  const combination = {};
  for (const { id, attribute, tests } of axes) {
    if (!tests) { combination[id] = root.getAttribute(attribute); continue; }
    const said = root.getAttribute(attribute);
    let value = tests[0].id;
    // Only what shows a placeholder tells by itself whether something is in it.
    if (id === 'content' && !bearer?.placeholder) { combination[id] = said ?? value; continue; }
    for (const each of tests.slice(1)) if (each.detect.some(holds) || said === each.id) value = each.id;
    combination[id] = value;
  }
  const active = document.activeElement;
  const partOf = element => Object.keys(classes).find(part => element.classList.contains(classes[part])) ?? null;
  return {
    value: field.value,
    focus: root.contains(active) ? partOf(active) : null,
    combination,
    messages: messages.map(part => first(part)?.textContent.trim() ?? '').filter(text => text !== ''),
    announced: window.heard.splice(0),
  };`;

/** A place of a part, in CSS px, on which the part itself lies on top; towards its end, where a text's end is, or its beginning, where the pieces of a date are. */
const PLACE = `
  const [classes, part, entry, alike, isFromStart] = arguments;
  const root = document.querySelector('#form > *');
  const all = part => root.classList.contains(classes[part]) ? [root] : [...root.querySelectorAll('.' + classes[part])];
  const element = all(part)[entry ?? 0];
  if (!element) return 'is not there';
  element.scrollIntoView({ block: 'nearest' });
  const partAt = at => { for (let here = at; here && root.contains(here); here = here.parentElement) {
    const found = Object.keys(classes).find(each => here.classList.contains(classes[each]));
    if (found) return [found, here]; } return [null, null]; };
  const box = element.getBoundingClientRect();
  if (box.width === 0 || box.height === 0) return 'is not there';
  // On itself, else on what lies in it and comes to the same.
  for (const isHit of [found => found === element, (found, name) => element.contains(found) && alike.includes(name)])
    for (let step = 2; step < box.width; step += 3) {
      const x = isFromStart ? box.left + step : box.right - step;
      for (const part of [0.5, 0.25, 0.75, 0.05, 0.95]) {
        const y = box.top + box.height * part;
        const [name, found] = partAt(document.elementFromPoint(x, y));
        if (found && isHit(found, name)) return { x, y };
      }
    }
  return 'is covered';`;

/** Keys by name, as a keyboard sends them. */
const KEY_CODES: Readonly<Record<string, number>> = {
  Backspace: 8,
  Tab: 9,
  Enter: 13,
  Escape: 27,
  ' ': 32,
  PageUp: 33,
  PageDown: 34,
  End: 35,
  Home: 36,
  ArrowLeft: 37,
  ArrowUp: 38,
  ArrowRight: 39,
  ArrowDown: 40,
  Delete: 46,
};

/** A part that a pointer does not come to, because others lie on all of it. */
export class Unreachable extends Error {}

/** Does acts on a page with real pointer and keys. */
export class BehaviourHands {
  private readonly classes: Readonly<Record<string, string>>;
  private readonly axes: readonly unknown[];
  private at = { x: 1, y: 1 };
  private isHeld = false;
  private readonly plan: Plan;

  constructor(
    private readonly driver: WebDriver,
    private readonly component: Component,
    system: System,
    private readonly messages: readonly string[],
  ) {
    const names = namesOf(system).component(component.id);
    const { anatomy, space } = component;
    this.plan = planOf(component);
    this.classes = Object.fromEntries(anatomy.parts.map(({ name }) => [name, names.part(name)]));
    this.axes = space.axes.map(({ id, kind, values }) => ({
      id,
      attribute: names.axis(id),
      tests:
        kind === 'option'
          ? null
          : values.map(value => ({
              id: value.id,
              detect: stateAxis(id)!.values.find(each => each.id === value.id)!.detect ?? [],
            })),
    }));
  }

  /** What the page shows, with the limits applied to what was found. */
  async read(): Promise<Found> {
    const { space, anatomy } = this.component;
    // What has come to lie under the pointer is found out as it moves.
    const { x, y } = this.at;
    // With a button held down it would select text.
    if (!this.isHeld)
      for (const by of [1, 0])
        await this.send('Input.dispatchMouseEvent', { type: 'mouseMoved', x: x + by, y });
    const found = await this.driver.executeScript<Found>(
      READ,
      this.classes,
      this.axes,
      this.messages,
      anatomy.control?.name ?? null,
    );
    return {
      ...found,
      combination: space.written(space.settled(space.indices(found.combination)).combination),
    };
  }

  async do(text: string): Promise<void> {
    const act = named(this.component, readAct(text));
    await this.act(act);
  }

  private send(command: string, parameters: object): Promise<unknown> {
    return (this.driver as Driver).sendAndGetDevToolsCommand(command, parameters);
  }

  private run<Result>(script: string, ...args: unknown[]): Promise<Result> {
    return this.driver.executeScript<Result>(script, ...args);
  }

  private async act(act: Act): Promise<void> {
    switch (act.kind) {
      case 'point':
        await (act.part === null ? this.move({ x: 1, y: 1 }) : this.to(act.part, act.entry));
        return;
      case 'press':
        await this.to(act.part, act.entry);
        await this.mouse('mousePressed');
        await this.mouse('mouseReleased');
        await this.closeNativeList();
        return;
      case 'hold':
        await this.to(act.part, act.entry);
        await this.mouse('mousePressed');
        await this.closeNativeList();
        return;
      case 'release':
        await this.mouse('mouseReleased');
        return;
      case 'type':
        for (const letter of act.text) await this.key(letter, 0);
        return;
      case 'key':
        // Into the field one comes from what stands before it, or behind.
        if (act.key === 'Tab')
          await this.run(
            `const root = document.querySelector('#form > *');
             if (!root.contains(document.activeElement)) document.getElementById(arguments[0]).focus();`,
            act.shift ? 'after' : 'before',
          );
        await this.key(act.key, (act.alt ? 1 : 0) + (act.control ? 2 : 0) + (act.shift ? 8 : 0));
        return;
      case 'paste':
        await this.run('return navigator.clipboard.writeText(arguments[0])', act.text);
        await this.send('Input.dispatchKeyEvent', {
          type: 'keyDown',
          key: 'v',
          windowsVirtualKeyCode: 86,
          modifiers: 2,
          commands: ['paste'],
        });
        await this.send('Input.dispatchKeyEvent', { type: 'keyUp', key: 'v', windowsVirtualKeyCode: 86 });
        return;
      case 'leave':
        await this.run("document.getElementById('after').focus()");
        return;
      case 'send':
        await this.run("document.getElementById('form').requestSubmit()");
        return;
      case 'reset':
        await this.run("document.getElementById('form').reset()");
        return;
      case 'wait':
        await this.run('advance(arguments[0])', act.ms);
        return;
      case 'answer':
        await this.run(
          `const [ask, accepted] = arguments;
           const at = asked.findLastIndex(each => each.ask === ask);
           if (at >= 0) asked.splice(at, 1)[0].resolve(accepted);
           return new Promise(resolve => queueMicrotask(() => queueMicrotask(resolve)));`,
          act.ask,
          act.accepted,
        );
        return;
      case 'app':
        if (act.axis === 'value') await this.run('field.value = arguments[0]', act.value);
        else if (act.axis === 'locale') await this.run('field.locale = arguments[0]', act.value);
        else await this.run('field.set(arguments[0], arguments[1])', act.axis, act.value);
        return;
      default:
        throw new Error(`A browser does not ${act.kind} for a test.`);
    }
  }

  /** The inside of the platform's own list is not ours: where one was opened it is closed again. */
  private async closeNativeList(): Promise<void> {
    if (this.component.anatomy.control?.element === 'select') await this.key('Escape', 0);
  }

  private async to(part: string, entry: { place: number } | { text: string } | null): Promise<void> {
    const place =
      entry === null
        ? null
        : 'place' in entry
          ? entry.place - 1
          : await this.run<number>(
              `return [...document.querySelectorAll('[role="option"]')].findIndex(each => each.textContent.includes(arguments[0]))`,
              entry.text,
            );
    const found = await this.run<{ x: number; y: number } | string>(
      PLACE,
      this.classes,
      part,
      place,
      this.alike(part),
      isPicked(this.plan),
    );
    if (typeof found === 'string') throw new Unreachable(`“${part}” ${found}.`);
    await this.move(found);
  }

  /** Parts on which a press comes to the same. */
  private alike(part: string): string[] {
    const { targets } = this.plan;
    const wanted = JSON.stringify(targets[part]);
    return Object.keys(targets).filter(each => JSON.stringify(targets[each]) === wanted);
  }

  private async move(to: { readonly x: number; readonly y: number }): Promise<void> {
    this.at = { ...to };
    await this.send('Input.dispatchMouseEvent', { type: 'mouseMoved', ...this.at });
  }

  private async mouse(type: 'mousePressed' | 'mouseReleased'): Promise<void> {
    const isDown = type === 'mousePressed';
    this.isHeld = isDown;
    await this.send('Input.dispatchMouseEvent', {
      type,
      ...this.at,
      button: 'left',
      buttons: isDown ? 1 : 0,
      clickCount: 1,
    });
  }

  private async key(key: string, modifiers: number): Promise<void> {
    // Only letters and digits have the code of their character.
    const code = KEY_CODES[key] ?? (/^[a-z0-9]$/i.test(key) ? key.toUpperCase().codePointAt(0)! : 0);
    const isLetter = [...key].length === 1;
    const text = key === 'Enter' ? '\r' : isLetter && (modifiers & 3) === 0 ? key : undefined;
    const commands = modifiers === 2 && key.toLowerCase() === 'a' ? ['selectAll'] : [];
    await this.send('Input.dispatchKeyEvent', {
      type: text === undefined ? 'rawKeyDown' : 'keyDown',
      key,
      code: isLetter ? undefined : key,
      windowsVirtualKeyCode: code,
      modifiers,
      text,
      commands,
    });
    await this.send('Input.dispatchKeyEvent', { type: 'keyUp', key, windowsVirtualKeyCode: code, modifiers });
  }
}
