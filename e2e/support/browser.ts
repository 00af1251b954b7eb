import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder, type Driver } from 'selenium-webdriver/chrome.js';
import { PATIENCE, TIMEOUT } from './patience';

const FLAGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--hide-scrollbars',
];

/** Where the browser and its driver lie: those of the machine, or another version of them. */
const FOLDER = process.env['PERIWINKLE_CHROMIUM'] ?? '/usr/bin';

/** A Chromium of its own, with an empty profile and a folder for downloads. */
export interface Browser {
  readonly driver: WebDriver;
  readonly downloads: string;
  readonly quit: () => Promise<void>;
}

export async function openBrowser(
  width = 1280,
  height = 800,
  flags: readonly string[] = [],
): Promise<Browser> {
  const profile = mkdtempSync(join(tmpdir(), 'periwinkle-browser-'));
  const downloads = mkdtempSync(join(tmpdir(), 'periwinkle-downloads-'));
  const options = new Options();
  options.addArguments(...FLAGS, ...flags, `--user-data-dir=${profile}`);
  options.setChromeBinaryPath(join(FOLDER, 'chromium'));
  options.windowSize({ width, height });
  options.setUserPreferences({
    'download.default_directory': downloads,
    'download.prompt_for_download': false,
    // Text of any size is read as computed.
    'webkit.webprefs.minimum_logical_font_size': 0,
  });
  const driver = await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new ServiceBuilder(join(FOLDER, 'chromedriver')))
    .build();
  // Reading thousands of computed values takes its time on a machine with much else to do.
  await driver.manage().setTimeouts({ script: TIMEOUT });
  await (driver as Driver).sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: 1,
    mobile: false,
  });
  await (driver as Driver).sendDevToolsCommand('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: downloads,
  });
  return {
    driver,
    downloads,
    quit: async () => {
      await driver.quit();
      for (const folder of [profile, downloads])
        rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
    },
  };
}

export const find = (driver: WebDriver, css: string): Promise<WebElement> =>
  driver.wait(until.elementLocated(By.css(css)), PATIENCE);

/** The element whose accessible name or text is exactly this. */
export const named = (driver: WebDriver, css: string, text: string): Promise<WebElement> =>
  driver.wait(
    async () => {
      const found = await driver.executeScript<WebElement | null>(
        `return [...document.querySelectorAll(arguments[0])].find(each =>
           each.textContent.trim() === arguments[1] || each.getAttribute('aria-label') === arguments[1]) ?? null`,
        css,
        text,
      );
      return found ?? false;
    },
    PATIENCE,
    `no ${css} named “${text}”`,
  ) as Promise<WebElement>;

/** Waits for a condition in the page; the expression is JavaScript. */
export const eventually = (driver: WebDriver, expression: string, ...args: unknown[]): Promise<unknown> =>
  driver.wait(
    () => driver.executeScript(`return (${expression})`, ...args),
    PATIENCE,
    `never: ${expression}`,
  );

/** Waits until everything that was edited is stored. */
export const stored = (driver: WebDriver): Promise<unknown> =>
  eventually(driver, `document.querySelector('.storing')?.textContent === 'stored'`);
