import type { Component } from '../components/component';
import { demoSystem } from '../test/demo';
import { contrast } from '../css/contrast';
import { surfaceBehind } from './surface-behind';

const component: Component = demoSystem().components[0]!;
const surface = (value: string) => ({ 'background-color': { value, rule: 'r', trail: [] } });

test('contrast is that of WCAG, an upper colour that lets through mixed with the lower', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
  expect(contrast('#00000080', '#ffffff')).toBeCloseTo(3.98, 1);
  expect(contrast('none', '#ffffff')).toBeNull();
});

test('what is behind a part is all that lies over one another there', () => {
  const parts = { frame: surface('#00000080'), entry: surface('#ff000000'), root: surface('#0000ff') };
  expect(surfaceBehind(component, parts, 'control', '#ffffff', false)).toBe('#00007f');
  expect(surfaceBehind(component, parts, 'frame', '#ffffff', true)).toBe('#00007f');
  expect(surfaceBehind(component, parts, 'frame', '#ffffff', false)).toBe('#0000ff');
  expect(surfaceBehind(component, {}, 'control', '#fafafa', true)).toBe('#fafafa');
});
