/** What a form knows of each of its fields. */
export interface FormField {
  readonly control: HTMLElement | null;
  readonly name: string;
  readonly value: string;
  /** As they are submitted, one name several times. */
  readonly values: readonly string[];
  readonly isDisabled: boolean;
  ready(): boolean | Promise<boolean>;
  reset(): void;
  focus(): void;
  other(name: string, value: string): void;
}

const known = new WeakMap<HTMLFormElement, Form>();

/** The form around a control, as far as fields of it are alive. */
export function formOf(control: HTMLElement | null): Form | null {
  const element = (control as HTMLInputElement | null)?.form ?? null;
  if (!element) return null;
  let form = known.get(element);
  if (!form) known.set(element, (form = new Form(element)));
  return form;
}

/** Sends all fields of a form at once: judges each, shows all complaints, and goes to the first (HTML, 4.10.22.3). */
class Form {
  private readonly fields = new Set<FormField>();
  /** A sending that has been judged already. */
  private isJudged = false;

  constructor(private readonly element: HTMLFormElement) {
    element.noValidate = true;
    // Judged before the page's own handlers hear of it, as a browser judges by itself.
    element.addEventListener('submit', event => this.submit(event), { capture: true });
    element.addEventListener('formdata', ({ formData }) => this.give(formData));
    element.addEventListener('reset', event => {
      if (!event.defaultPrevented) for (const field of this.fields) field.reset();
    });
  }

  add(field: FormField): void {
    this.fields.add(field);
  }

  remove(field: FormField): void {
    this.fields.delete(field);
  }

  /** The others hear what a field holds as it is left. */
  left(field: FormField): void {
    for (const each of this.fields) if (each !== field) each.other(field.name, field.value);
  }

  private inOrder(): FormField[] {
    return [...this.fields].sort((one, other) =>
      one.control &&
      other.control &&
      one.control.compareDocumentPosition(other.control) & Node.DOCUMENT_POSITION_PRECEDING
        ? 1
        : -1,
    );
  }

  private submit(event: SubmitEvent): void {
    if (this.isJudged) return;
    const fields = this.inOrder();
    for (const field of fields) this.left(field);
    const found = fields.map(field => field.ready());
    if (found.every(each => each === true)) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    const { submitter } = event;
    void Promise.all(found).then(answers => {
      const wrong = answers.indexOf(false);
      if (wrong >= 0) fields[wrong]!.focus();
      else this.again(submitter);
    });
    const known = found.indexOf(false);
    if (known >= 0) fields[known]!.focus();
  }

  private again(submitter: HTMLElement | null): void {
    this.isJudged = true;
    this.element.requestSubmit(submitter);
    this.isJudged = false;
  }

  private give(data: FormData): void {
    for (const { name, values, isDisabled } of this.fields) {
      if (name === '') continue;
      data.delete(name);
      if (!isDisabled) for (const value of values) data.append(name, value);
    }
  }
}
