/** Hands a file to the reader: a text or bytes that were made here. */
export function saveAs(name: string, type: string, content: string | Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([content], { type }));
  // What stands in the name of a build may be no name of a file.
  link.download = name.replace(/[^\p{L}\p{N} ._-]+/gu, ' ').trim() || 'file';
  link.click();
  URL.revokeObjectURL(link.href);
}
