import DOMPurify from 'dompurify';
import { useMemo } from 'react';
import { markdownHtml } from './markdown-html';

/** An author's words (CommonMark), cleaned once more before they reach the page. */
export function Markdown({ text, className }: { text: string; className?: string }) {
  const html = useMemo(
    () => DOMPurify.sanitize(markdownHtml(text), { USE_PROFILES: { html: true } }),
    [text],
  );
  return <div className={className} dangerouslySetInnerHTML={{ __html: html }} />;
}
