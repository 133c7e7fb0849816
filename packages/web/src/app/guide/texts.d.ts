/** A page of docs, as it is written. */
declare module '*.md' {
  const text: string;
  export default text;
}
