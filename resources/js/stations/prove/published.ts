/** A line of figures that somebody published: a group and its figure, or a figure alone for all groups. */
export interface PublishedLine {
  labels: string[]
  figure: string | null
}

/** A number as people write it, with a point before the decimals and commas or spaces between thousands; null where it is none. */
export function figureOf(text: string): string | null {
  const bare = text
    .trim()
    .replace(/[−–]/, '-')
    .replace(/(?<=\d)[,\u00a0\u202f ](?=\d{3}(\D|$))/g, '')
  return /^-?\d+(\.\d+)?$/.test(bare) ? bare : null
}

/** What was pasted, line by line: names of the group columns and the figure, between tabs, semicolons or bars. */
export function published(text: string, groupColumns: number): { lines: PublishedLine[]; unread: string[] } {
  const lines: PublishedLine[] = []
  const unread: string[] = []
  for (const line of text.split(/\r?\n/)) {
    if (line.trim() === '') continue
    const cells = line.split(/[\t;|]/).map((cell) => cell.trim())
    const figure = figureOf(cells.at(-1) ?? '')
    const labels = cells.slice(0, -1)
    if (figure === null || (labels.length !== 0 && labels.length !== groupColumns)) unread.push(line)
    else lines.push({ labels, figure })
  }
  return { lines, unread }
}
