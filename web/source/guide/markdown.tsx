import DOMPurify from 'dompurify';
import MarkdownIt from 'markdown-it';
import { useMemo } from 'react';

const markdown = new MarkdownIt({ html: false, linkify: false, typographer: true });

/** An author's words (CommonMark). Raw HTML is shown as text, and what is left is cleaned before it reaches the page. */
export function Markdown({ text, className }: { text: string; className?: string }) {
  const html = useMemo(
    () => DOMPurify.sanitize(markdown.render(text), { USE_PROFILES: { html: true } }),
    [text],
  );
  return <div className={className} dangerouslySetInnerHTML={{ __html: html }} />;
}
