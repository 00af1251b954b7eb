import type { WebDriver } from 'selenium-webdriver';
import { Application } from './application';
import { openBrowser, type Browser } from './browser';
import { TIMEOUT } from './patience';

export interface Session {
  readonly application: Application;
  readonly address: string;
  readonly browser: Browser;
  readonly driver: WebDriver;
}

/** An application with a browser beside it for all tests of a file: told of before the first, gone after the last. */
export function inBrowser(
  begin: (session: Session) => unknown,
  { width, height }: { width?: number; height?: number } = {},
): void {
  let application: Application | undefined;
  let browser: Browser | undefined;
  beforeAll(async () => {
    application = new Application();
    const address = await application.start();
    browser = await openBrowser(width, height);
    await begin({ application, address, browser, driver: browser.driver });
  }, TIMEOUT);
  afterAll(async () => {
    await browser?.quit();
    await application?.remove();
  }, TIMEOUT);
}

/** A browser for all tests of a file that need no application: told of before the first, gone after the last. */
export function inBareBrowser(begin: (browser: Browser) => unknown): void {
  let browser: Browser | undefined;
  beforeAll(async () => {
    browser = await openBrowser();
    await begin(browser);
  }, TIMEOUT);
  afterAll(() => browser?.quit(), TIMEOUT);
}
