/** Gives a file to the person. @param name without its ending; what a file name cannot have is left out */
export function saveFile(name: string, ending: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  const link = document.createElement('a');
  link.href = url;
  link.download = `${name.replace(/[^\p{L}\p{N} ._-]/gu, '').trim() || 'table'}.${ending}`;
  link.click();
  URL.revokeObjectURL(url);
}

/** Gives rows to the person as a CSV file. @param text as `writeCsv` makes it */
export function saveCsv(name: string, text: string): void {
  saveFile(name, 'csv', new Blob([text], { type: 'text/csv;charset=utf-8' }));
}
