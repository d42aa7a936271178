/** As formulas name a column: by its word, or in quotes where its name is none. */
export const formulaName = (column: string): string => (/^[A-Za-z_]\w*$/.test(column) ? column : `column("${column.replace(/["\\]/g, '\\$&')}")`)
