import { randomly } from '@periwinkle/core/test/runs';
import fc from 'fast-check';
import { JSDOM } from 'jsdom';
import { fuzzText } from '@periwinkle/core/test/fuzz-text';
import { markdownHtml } from './markdown-html';

/** Whatever an author writes becomes words on a page, in little time. */

const MARKS = [
  '# ',
  '* ',
  '1. ',
  '> ',
  '```',
  '`',
  '**',
  '_',
  '[a](',
  '](',
  '![',
  '<',
  'javascript:',
  'data:',
  '\n\n',
  '    ',
  '| a |\n|---|\n',
];
const written = fc
  .array(fc.oneof(fc.constantFrom(...MARKS), fuzzText), { maxLength: 8 })
  .map(pieces => pieces.join(''));

test('no text throws, takes long, or makes anything but words and pictures', () => {
  const { document } = new JSDOM('').window;
  const place = document.createElement('div');
  let slowest = 0;
  fc.assert(
    fc.property(written, text => {
      const began = performance.now();
      const html = markdownHtml(text);
      slowest = Math.max(slowest, performance.now() - began);
      place.innerHTML = html;
      expect(place.querySelector('script, style, iframe, object, embed, form, svg, link, meta')).toBeNull();
      for (const element of place.querySelectorAll('*'))
        for (const { name, value } of element.attributes) {
          expect(name).not.toMatch(/^on|^style$/i);
          if (name === 'href' || name === 'src')
            expect(value).not.toMatch(/^\s*(javascript|vbscript|data:(?!image\/))/i);
        }
    }),
    randomly('Markdown'),
  );
  process.stderr.write(`fuzz of Markdown: the slowest took ${slowest.toFixed(0)} ms\n`);
}, 600_000);
