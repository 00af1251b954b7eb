import type { WebDriver, WebElement } from 'selenium-webdriver';
import { checkSystem } from '@periwinkle/core/checks/check-system';
import type { ComponentDocument, DerivedDocument } from '@periwinkle/core/documents/component-document';
import { PATIENCE } from './patience';

/** The line that bears a label. */
export const line = (driver: WebDriver, label: string): Promise<WebElement> =>
  driver.wait(
    () =>
      driver.executeScript<WebElement | null>(
        `const label = [...document.querySelectorAll('label')].find(each => each.textContent === arguments[0]);
         return label ? document.getElementById(label.htmlFor) : document.querySelector('[aria-label="' + arguments[0] + '"]')`,
        label,
      ),
    PATIENCE,
    `no line “${label}”`,
  ) as Promise<WebElement>;

/** What the server has of the demo system: documents by path. */
export async function storedDocuments(address: string): Promise<Map<string, unknown>> {
  const whole = (await (await fetch(`${address}/api/systems/quayside`)).json()) as {
    documents: { path: string; body: unknown }[];
  };
  return new Map(whole.documents.flatMap(({ path, body }) => (body === null ? [] : [[path, body]])));
}

export const storedComponent = async (
  address: string,
  id: string,
): Promise<ComponentDocument & DerivedDocument> =>
  (await storedDocuments(address)).get(`components/${id}.component.json`) as ComponentDocument &
    DerivedDocument;

export const storedProblems = async (address: string): Promise<string[]> =>
  checkSystem(await storedDocuments(address)).problems.map(
    ({ file, pointer, message }) => `${file} ${pointer} ${message}`,
  );
