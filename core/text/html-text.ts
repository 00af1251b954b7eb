const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** Text as it can stand between tags and inside quoted attributes. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, char => ENTITIES[char]!);
}
