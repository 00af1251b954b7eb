import type { ShippedPlan } from './shipped-plan';

/** The elements of one field on a page, by part. */
export class FieldElements {
  private readonly partOf: Map<string, string>;
  readonly control: HTMLElement | null;

  constructor(
    readonly root: HTMLElement,
    private readonly plan: ShippedPlan,
  ) {
    this.partOf = new Map(Object.entries(plan.classes).map(([part, name]) => [name, part]));
    this.control = plan.control ? this.first(plan.control.part) : null;
  }

  all(part: string): HTMLElement[] {
    const name = this.plan.classes[part];
    if (name === undefined) return [];
    return this.root.classList.contains(name)
      ? [this.root]
      : [...this.root.querySelectorAll<HTMLElement>(`.${CSS.escape(name)}`)];
  }

  first(part: string): HTMLElement | null {
    return this.all(part)[0] ?? null;
  }

  /** The part that an event came from, and which of a list's entries. */
  partAt(target: EventTarget | null): { readonly part: string; readonly entry: number | null } | null {
    for (let here = target as Element | null; here && this.root.contains(here); here = here.parentElement) {
      const part = [...here.classList].map(name => this.partOf.get(name)).find(name => name !== undefined);
      if (part === undefined) continue;
      const entry = here.closest('[role="option"]');
      return { part, entry: entry ? this.entries().indexOf(entry as HTMLElement) : null };
    }
    return null;
  }

  /** What has the focus, in a shadow tree as in a page. */
  active(): Element | null {
    return (this.root.getRootNode() as Document | ShadowRoot).activeElement;
  }

  entries(): HTMLElement[] {
    return [...this.root.querySelectorAll<HTMLElement>('[role="option"]')];
  }

  /** Has an attribute say something, or nothing (`null`); what says so already is left alone, for the sake of those who watch. */
  mark(element: Element | null, name: string, text: string | null): void {
    if (!element || element.getAttribute(name) === text) return;
    if (text === null) element.removeAttribute(name);
    else element.setAttribute(name, text);
  }

  write(element: Element | null, text: string): void {
    if (element && element.textContent !== text) element.textContent = text;
  }
}
