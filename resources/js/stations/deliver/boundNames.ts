/** Text, quoted names, comments and casts, in which a colon begins no name; or a name after a colon. */
const PARTS = /'(?:[^']|'')*'|"(?:[^"]|"")*"|`[^`]*`|--[^\n]*|\/\*[\s\S]*?\*\/|::|:=|(?<![\w:]):([A-Za-z_]\w*)/g

/** Names in a query that stand for values, in the order in which they first stand. */
export const namesIn = (sql: string): string[] => [...new Set([...sql.matchAll(PARTS)].flatMap(([, name]) => name ?? []))]
