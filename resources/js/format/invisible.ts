/** A stretch of a value: text as it stands, or a character that cannot be seen, by its name. */
export interface Piece {
  text: string
  isToken: boolean
}

const names: Record<string, string> = {
  '\t': 'tab',
  '\n': 'line',
  '\r': 'return',
  '\u00A0': 'no-break space',
  '\u00AD': 'soft hyphen',
  '\u200B': 'zero-width space',
  '\u200C': 'zero-width non-joiner',
  '\u200D': 'zero-width joiner',
  '\u2060': 'word joiner',
  '\uFEFF': 'byte-order mark',
  '\uFFFD': 'lost letter',
}

const unseen = /[\p{Cc}\p{Cf}\u00A0\u2000-\u200A\u202F\u205F\u3000\uFFFD]/u

/** Cuts a value where a character cannot be seen, so that it can be drawn as a small named token. */
export function pieces(value: string): Piece[] {
  const found: Piece[] = []
  let text = ''
  for (const character of value) {
    if (!unseen.test(character)) {
      text += character
      continue
    }
    if (text !== '') {
      found.push({ text, isToken: false })
      text = ''
    }
    const code = (character.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, '0')
    found.push({ text: names[character] ?? `U+${code}`, isToken: true })
  }
  if (text !== '') {
    found.push({ text, isToken: false })
  }
  return found
}
