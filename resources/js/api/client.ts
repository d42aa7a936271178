import createClient from 'openapi-fetch'
import type { components, paths } from '@/api/schema'
import { saysSessionIsOver, signedInAgain } from '@/api/sessionOver'

export type Schemas = components['schemas']

/** What the server says went wrong (RFC 9457), in words for the person. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly title: string,
    message: string,
    readonly errors: readonly { pointer: string; detail: string }[] = [],
  ) {
    super(message)
  }
}

let csrfToken = ''

/** The token comes with the session's answer and goes back with every write. */
export function rememberToken(token: string): void {
  csrfToken = token
}

/** By this the server knows that a search has been left: the same page looks for something else. */
const page = Array.from(crypto.getRandomValues(new Uint8Array(8)), (byte) => byte.toString(16).padStart(2, '0')).join('')

let leaving = new AbortController()
let givenUp: (() => void)[] = []

/**
 * Whoever signs out asks for nothing but that: what is asked already would be answered for a session that is over, which reads as if it
 * had ended by itself, or would bring its cookie back. Such questions get no answer, for the page is left.
 *
 * @throws when signing out fails: then they have failed too, and the page goes on
 */
export async function askLast<Data>(last: () => Promise<Data>): Promise<Data> {
  leaving.abort()
  try {
    return await last()
  } catch (failure) {
    leaving = new AbortController()
    for (const fail of givenUp) fail()
    givenUp = []
    throw failure
  }
}

const isSigningOut = (request: Request) => request.method === 'DELETE' && request.url.endsWith('/session')

export async function ask(request: Request): Promise<Response> {
  if (isSigningOut(request)) return fetch(request)
  const { signal } = leaving
  try {
    return await fetch(request, { signal: AbortSignal.any([request.signal, signal]) })
  } catch (failure) {
    if (!signal.aborted) throw failure
    return new Promise((_, fail) => givenUp.push(() => fail(failure as Error)))
  }
}

export const api = createClient<paths>({ baseUrl: '/api/v1', headers: { Accept: 'application/json' }, fetch: ask })

/** What was asked and is not answered yet, to be asked again should the session be over: a request can be sent once. */
const asked = new Map<string, Request>()
api.use({
  onRequest({ request, id }) {
    request.headers.set('X-Page', page)
    if (request.method !== 'GET') {
      request.headers.set('X-CSRF-TOKEN', csrfToken)
    }
    asked.set(id, request.clone())
    return request
  },
  async onResponse({ response, id, schemaPath }) {
    const again = asked.get(id)
    asked.delete(id)
    // Who the session belongs to, signing in and signing out are asked as they are.
    if (again === undefined || schemaPath === '/session' || !saysSessionIsOver(response)) return response
    await signedInAgain()
    if (again.method !== 'GET') again.headers.set('X-CSRF-TOKEN', csrfToken)
    return ask(again)
  },
  onError({ id }) {
    asked.delete(id)
  },
})

/** The answer's content, or the problem thrown. */
export async function answer<Data>(call: Promise<{ data?: Data; error?: Schemas['Problem']; response: Response }>): Promise<Data> {
  const { data, error, response } = await call.catch(() => {
    throw new Error('Nine Tally cannot be reached. Check that it is running (bin/start), then try again.')
  })
  if (error !== undefined) {
    throw typeof error === 'object' && 'detail' in error
      ? new ApiProblem(error.status, error.code, error.title, error.detail, error.errors)
      : new ApiProblem(response.status, 'refused', 'This was refused', 'The server refused this without a reason. Reload the page and try again.')
  }
  return data as Data
}

/** Bytes go up as they are: no JSON around them. */
export async function sendChunk(receipt: string, offset: number, chunk: Blob): Promise<Schemas['Receipt']> {
  return answer(
    api.PUT('/receipts/{receipt}/chunks/{offset}', {
      params: { path: { receipt, offset } },
      body: chunk as unknown as string,
      bodySerializer: (body) => body as unknown as Blob,
      headers: { 'Content-Type': 'application/octet-stream' },
    }),
  )
}
