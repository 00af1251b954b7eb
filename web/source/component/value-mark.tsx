/** Draws a settled value as what it is: a swatch for a colour, a bar for a length. */
export function ValueMark({ value }: { value: string }) {
  if (/^#[0-9a-f]{6,8}$/i.test(value))
    return <span className="swatch" style={{ background: value }} aria-hidden="true" />;
  const length = /^(\d+(?:\.\d+)?)px$/.exec(value);
  if (length)
    return <span className="bar" style={{ width: Math.min(60, Number(length[1])) }} aria-hidden="true" />;
  return null;
}
