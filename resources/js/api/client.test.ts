// @vitest-environment node
import { afterEach, expect, it, vi } from 'vitest'
import { ask, askLast } from '@/api/client'

afterEach(() => vi.unstubAllGlobals())

const tokens = () => new Request('http://tally.example/api/v1/me/tokens')
const signOut = () => ask(new Request('http://tally.example/api/v1/session', { method: 'DELETE' }))

/** A server that answers nobody but who signs out, and hears when somebody waits no longer. */
function slowServer(signingOut: () => Response) {
  const heard: string[] = []
  vi.stubGlobal('fetch', ({ method }: Request, { signal }: RequestInit = {}) => {
    heard.push(method)
    if (method === 'DELETE') return Promise.resolve().then(signingOut)
    return new Promise((_, fail) => {
      const leave = () => {
        heard.push('left')
        fail(new Error('left'))
      }
      if (signal?.aborted) leave()
      else signal?.addEventListener('abort', leave)
    })
  })
  return heard
}

it('gives up what is asked before the session ends, without a word', async () => {
  const heard = slowServer(() => new Response(null, { status: 204 }))
  const ends = vi.fn()
  void ask(tokens()).then(ends, ends)
  await askLast(signOut)
  expect(heard).toEqual(['GET', 'left', 'DELETE'])
  expect(ends).not.toHaveBeenCalled()
})

it('goes on where signing out fails', async () => {
  const heard = slowServer(() => {
    throw new Error('unplugged')
  })
  const asked = ask(tokens())
  await expect(askLast(signOut)).rejects.toThrow('unplugged')
  await expect(asked).rejects.toThrow('left')
  void ask(tokens())
  expect(heard).toEqual(['GET', 'left', 'DELETE', 'GET'])
})
