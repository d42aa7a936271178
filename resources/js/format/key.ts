/** The cells of a key that is written as one record of CSV (RFC 4180). */
export const keyCells = (text: string): string[] =>
  [...`,${text}`.matchAll(/,(?:"((?:[^"]|"")*)"|([^,]*))/g)].map(([, quoted, plain]) => quoted?.replaceAll('""', '"') ?? plain ?? '')
