/** Drawings that starting points bring along where a system has none of that name: 16 by 16, in the colour of the text around. */
const stroke = (path: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 16 16" fill="none"><path d="${path}" fill="none" stroke="currentColor" stroke-width="1.4" stroke-linecap="round" stroke-linejoin="round"/></svg>\n`;

export const DRAWINGS = {
  alert: stroke('M8 2.2 14.4 13.4H1.6ZM8 6.4v3.2M8 11.4v.2'),
  check: stroke('m3 8.6 3.4 3.4L13 4.6'),
  lens: stroke('M10.4 10.4 14 14M6.6 2.2a4.4 4.4 0 1 1 0 8.8 4.4 4.4 0 0 1 0-8.8'),
  cross: stroke('m4 4 8 8M12 4l-8 8'),
  arrow: stroke('m4 6.2 4 4 4-4'),
  shutter: stroke('M2 4h12M2 7h12M2 10h12M2 13h12'),
  'shutter-open': stroke('M2 3h12M2 5h12M1.8 11c3-4.6 9.4-4.6 12.4 0M8 9.4v2.4'),
  minus: stroke('M3.4 8h9.2'),
  plus: stroke('M3.4 8h9.2M8 3.4v9.2'),
} as const;
