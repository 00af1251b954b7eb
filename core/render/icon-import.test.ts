import { iconName, importedIcon } from './icon-import';

const svg = (inside: string, more = ''): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 8 8" ${more}>${inside}</svg>`;
const PATH = '<path d="M0 0h8" stroke="#123456" fill="none"/>';

test('a drawing comes in the colour of the text around', () => {
  const icon = importedIcon('Anchor chain.svg', svg(PATH));
  expect(icon).toMatchObject({ ok: true, name: 'Anchor-chain', leftOut: [] });
  expect(icon.ok && icon.svg).toContain('stroke="currentColor"');
  expect(icon.ok && icon.svg).toContain('fill="none"');
  const kept = importedIcon('x', svg(PATH), true);
  expect(kept.ok && kept.svg).toContain('#123456');
});

test.each<[string, string, RegExp]>([
  ['a script', svg(`<script>alert(1)</script>${PATH}`), /script/],
  ['a handler', svg(PATH, 'onload="alert(1)"'), /onload/],
  ['foreign content', svg(`<foreignObject><b>x</b></foreignObject>${PATH}`), /foreignObject/],
  ['an image from elsewhere', svg(`<image href="https://merrow.example/x.png"/>${PATH}`), /image/],
  ['a part of a remote file', svg(`<use href="https://merrow.example/x.svg#a"/>${PATH}`), /use/],
  ['a style that loads', svg('<path d="M0 0h8" style="fill:url(https://merrow.example)"/>'), /style/],
  ['a fill that loads', svg('<path d="M0 0h8" fill="url(https://merrow.example)"/>'), /fill/],
])('of %s nothing is left, and that is told', (_, text, told) => {
  const icon = importedIcon('x', text);
  expect(icon.ok && icon.leftOut.join()).toMatch(told);
  expect(icon.ok && /script|onload|foreign|image|<use|style|url\(|merrow/i.test(icon.svg)).toBe(false);
});

test.each<[string, string, RegExp]>([
  ['entities that grow', `<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>${svg('&b;')}`, /entities/],
  ['5 MB of path', svg(`<path d="${'M0 0h8 '.repeat(700_000)}"/>`), /too much/],
  ['a page', '<html><body>x</body></html>', /not an SVG/],
  ['nothing', '', /not an SVG/],
  ['a drawing without shapes', svg('<text>x</text>'), /Nothing in it/],
  ['broken markup', '<svg><path', /not an SVG/],
])('refused: %s', (_, text, reason) => {
  const icon = importedIcon('x', text);
  expect([icon.ok, icon.ok ? '' : icon.reason]).toEqual([false, expect.stringMatching(reason)]);
});

test('names are names of files, whatever they came as', () => {
  expect(
    ['../../etc/passwd', '<b>.svg', 'Ünïcode–Dash.SVG', '', '🛟', 'x'.repeat(10_000)].map(iconName),
  ).toEqual(['passwd', 'b', 'Unicode-Dash', 'icon', 'icon', 'x'.repeat(60)]);
});
