import MarkdownIt from 'markdown-it';

const markdown = new MarkdownIt({ html: false, linkify: false, typographer: true });

/** An author's words (CommonMark) as HTML. Raw HTML in them is shown as text. */
export const markdownHtml = (text: string): string => markdown.render(text);
