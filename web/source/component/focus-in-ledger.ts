/** A line that has moved out of sight is drawn some frames after it is scrolled to. */
const FRAMES = 5;

/**
 * Focuses an entry once the ledger is drawn. The line is found by its property: writing may have moved it, since properties
 * stand in the order in which rules first name them.
 */
export function focusInLedger(property: string, column: number, frames = FRAMES): void {
  requestAnimationFrame(() => {
    const line = document.querySelector(`.ledger [data-property="${CSS.escape(property)}"]`);
    const entry = line?.querySelector<HTMLElement>(`.entry[data-column="${column}"]`);
    if (entry) entry.focus();
    else if (line && frames > 0) {
      line.scrollIntoView({ block: 'nearest' });
      focusInLedger(property, column, frames - 1);
    }
  });
}
