import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { TextItem } from 'pdfjs-dist/types/src/display/api';

/** A PDF as a reader of its own sees it: its pages' size and words, and what it says of itself. */
export async function readPdf(bytes: Buffer) {
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const pages = await Promise.all(
    Array.from({ length: pdf.numPages }, async (_none, k) => {
      const page = await pdf.getPage(k + 1);
      const [, , width, height] = page.view as [number, number, number, number];
      const { items } = await page.getTextContent();
      const words = items
        .filter((item): item is TextItem => 'str' in item && item.str.trim() !== '')
        .map(({ str, transform }) => ({ text: str, x: transform[4] as number, y: transform[5] as number }));
      const tree = (await page.getStructTree()) as { children: unknown[] } | null;
      return { width: Math.round(width), height: Math.round(height), words, tags: JSON.stringify(tree ?? '') };
    }),
  );
  const { info } = (await pdf.getMetadata()) as { info: { Title?: string; Language?: string } };
  const marked = ((await pdf.getMarkInfo()) as { Marked?: boolean } | null)?.Marked === true;
  return { pages, title: info.Title, language: info.Language, marked, text: textOf(pages) };
}

const textOf = (pages: readonly { words: readonly { text: string }[] }[]) =>
  pages
    .flatMap(({ words }) => words.map(({ text }) => text))
    .join(' ')
    .replace(/\s+/g, ' ');
