import { plainLetters } from './transliteration';

test.each([
  ['Über den Steg', 'Uber den Steg'],
  ['Straße', 'Strasse'],
  ['ÆRØ', 'AeRO'],
  ['Łódź', 'Lodz'],
  ['ﬁn', 'fin'],
  ['北 dock', '北 dock'],
])('%s is %s', (text, plain) => expect(plainLetters(text)).toBe(plain));
