import type { WebDriver } from 'selenium-webdriver';
import { demoSystem } from '@periwinkle/core/test/demo';
import { eventually } from './support/browser';
import { Delivery } from './support/delivery';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** One field is drawn with the same fonts and measures wherever it is drawn, and with none of the application's own. */

let driver: WebDriver;
let address: string;
inBrowser(session => ({ address, driver } = session));

const shipped = new Delivery(demoSystem());
afterAll(() => shipped.remove());

/** Text fields of the usual size that stand somewhere on the screen: in specimens, fields to try, and the page of a trial. */
const FIELDS = `
  const rootsIn = root => [...root.querySelectorAll('*')].flatMap(each => [
    ...(each.matches('.qs-text-field') ? [each] : []),
    ...(each.shadowRoot ? rootsIn(each.shadowRoot) : []),
    ...(each.localName === 'iframe' && each.contentDocument ? rootsIn(each.contentDocument) : []),
  ]);
  const fields = rootsIn(document).filter(
    root => (root.dataset.size ?? 'medium') === 'medium' && root.querySelector('.qs-text-field-label')?.offsetHeight > 0,
  );`;

/** What the first of them is drawn with: by part its face, size of letters, height of lines and of itself. */
const measured = (): Promise<Record<string, string>> =>
  driver.executeScript(
    `${FIELDS}
     return Object.fromEntries(['label', 'frame', 'control'].map(part => {
       const style = getComputedStyle(fields[0].querySelector('.qs-text-field-' + part));
       return [part, [style.fontFamily, style.fontSize, style.lineHeight, style.letterSpacing, style.height].join(' / ')];
     }))`,
  );

const SCREENS = [
  ['plate', '/quayside/text-field?rows=*&columns=pointed-at'],
  ['anatomy', '/quayside/text-field/anatomy'],
  ['behaviour', '/quayside/text-field/behaviour'],
  ['content', '/quayside/text-field/content'],
  ['lineup', '/quayside/lineup'],
  ['guide', '/quayside/guide/text-field'],
  ['trial', '/quayside/trials/arrival'],
] as const;

test(
  'a field is the same on every screen',
  async () => {
    const found: Record<string, Record<string, string>> = {};
    for (const [name, path] of SCREENS) {
      await driver.get(`${address}${path}`);
      await eventually(driver, `(() => { ${FIELDS} return fields.length > 0; })()`);
      found[name] = await measured();
    }
    await driver.get(shipped.address('html/text-field.html'));
    found['page that ships'] = await measured();
    const { plate } = found;
    expect(plate!['label']).not.toContain('undefined');
    expect(found).toEqual(Object.fromEntries(Object.keys(found).map(name => [name, plate])));
  },
  TIMEOUT,
);
