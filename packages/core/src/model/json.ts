/** What can stand in a document. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };
