import type { WebDriver } from 'selenium-webdriver';

/** A field as a page shows it. */
export interface PlacedField {
  readonly html: string;
  /** Its own axes, for the element in whose shadow tree it stands. */
  readonly attributes: Readonly<Record<string, string>>;
  /** Contexts that are switched around it. */
  readonly contexts?: Readonly<Record<string, string>>;
}

/** What the page is styled by, and what its shadow trees are, where fields stand in such. */
export interface PageStyles {
  readonly page: readonly string[];
  readonly inner?: readonly string[];
}

/** Nothing is laid out, so that lengths are read as computed and not as used. */
const BUILD = `
  const [fields, page, inner] = arguments;
  const sheets = texts => texts.map(text => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(text);
    return sheet;
  });
  document.adoptedStyleSheets = sheets(page);
  const own = inner && sheets(inner);
  document.body.innerHTML = '';
  document.body.style.display = 'none';
  fields.forEach(({ html, attributes, contexts }, index) => {
    const around = document.createElement('div');
    Object.assign(around.dataset, contexts);
    const place = document.createElement(own ? 'p-field' : 'div');
    place.id = 'cell-' + index;
    around.append(place);
    document.body.append(around);
    if (own) {
      for (const [name, value] of Object.entries(attributes)) place.setAttribute('data-' + name, value);
      place.attachShadow({ mode: 'open' }).adoptedStyleSheets = own;
    }
    (place.shadowRoot ?? place).innerHTML = html;
  });`;

/** Puts fields on an empty page, each in an element of its own (`cell-0` and so on) or in the shadow tree of one that bears its axes. */
export async function showFields(
  driver: WebDriver,
  fields: readonly PlacedField[],
  { page, inner }: PageStyles,
): Promise<void> {
  await driver.get('about:blank');
  await driver.executeScript(BUILD, fields, page, inner ?? null);
}
