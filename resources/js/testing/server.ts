import { afterAll, beforeAll, vi } from 'vitest'
import { api, ApiProblem } from '@/api/client'

/**
 * Stands for the server in a file of tests: each method is a mock that answers with content, or rejects with an ApiProblem.
 * The client itself stays as it is, so no module has to be replaced, and files of tests can share what they load.
 */
export function useServer() {
  const server = { GET: vi.fn(), POST: vi.fn(), PUT: vi.fn(), DELETE: vi.fn() }
  const before = { ...api }
  const through =
    (mock: (...asked: unknown[]) => unknown) =>
    async (...asked: unknown[]) => {
      try {
        return { data: await mock(...asked), response: new Response() }
      } catch (problem) {
        if (!(problem instanceof ApiProblem)) throw problem
        const { status, code, title, message: detail, errors } = problem
        return { error: { status, code, title, detail, errors }, response: new Response() }
      }
    }
  beforeAll(() => Object.assign(api, { GET: through(server.GET), POST: through(server.POST), PUT: through(server.PUT), DELETE: through(server.DELETE) }))
  afterAll(() => Object.assign(api, before))

  return server
}
