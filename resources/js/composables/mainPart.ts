/** Puts the focus where the work of the page is, so that the next key goes on there and who listens hears where they are. */
export function focusMainPart(): void {
  const main = document.querySelector<HTMLElement>('main')
  if (main === null) return
  main.tabIndex = -1
  main.focus({ preventScroll: true })
}

/** After another page was opened; what the page itself has given the focus to keeps it. */
export function followPage(isOpen: () => boolean, tries = 20): void {
  const active = document.activeElement
  const isLost = active === null || active === document.body || !active.isConnected || active.closest('nav, .top') !== null
  if (!isOpen()) return
  if (document.querySelector('main') !== null) {
    if (isLost) focusMainPart()
  } else if (tries > 0) {
    setTimeout(() => followPage(isOpen, tries - 1), 50)
  }
}
