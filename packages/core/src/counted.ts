/** A count with its word: '1 level', '3 levels'. @param many the word for several, with an s when it is not given */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`;
}
