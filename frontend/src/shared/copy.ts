/** What is copied: as text, and with its layout for programs that take it. */
export interface Copied {
  text: string;
  html: string;
}

/** Puts a text on the clipboard, with its layout where the browser can. Rejects where it may not. */
export async function copy({ text, html }: Copied): Promise<void> {
  if (typeof ClipboardItem === "undefined") return navigator.clipboard.writeText(text);
  const blob = (type: string, content: string) => new Blob([content], { type });
  await navigator.clipboard.write([new ClipboardItem({ "text/plain": blob("text/plain", text), "text/html": blob("text/html", html) })]);
}

/** A text inside of HTML. */
export function escaped(text: string): string {
  const signs: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;", "'": "&#39;" };
  return text.replace(/[&<>"']/g, (sign) => signs[sign] ?? sign);
}
