// From an answer to a file: saved, or put on the clipboard.
import type { ExportAnswer } from '@/api/types';

export function blobOf(answer: ExportAnswer): Blob {
  const bytes = Uint8Array.from(atob(answer.data), (sign) => sign.charCodeAt(0));
  return new Blob([bytes], { type: answer.media });
}

export function textOf(answer: ExportAnswer): Promise<string> {
  return blobOf(answer).text();
}

/** SVG text as an address that stands for it. */
export function dataUri(svg: string): string {
  const escaped = svg.replace(/"/g, "'").replace(/[%#<>?{}|\\^`\n]/g, encodeURIComponent);
  return `data:image/svg+xml,${escaped}`;
}

/** Gives a file to the browser to be saved. */
export function save(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
