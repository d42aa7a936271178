/** An identifier for a step that is new; also where the page did not come by TLS, and the browser makes no UUIDs. */
export function freshStepId(): string {
  const [random = 0] = crypto.getRandomValues(new Uint32Array(1))
  return `step-${random.toString(16).padStart(8, '0')}`
}
