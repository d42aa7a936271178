import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { answer, api, askLast, rememberToken } from '@/api/client'
import { rememberSomebody } from '@/api/sessionOver'

/** Who is signed in. Asked for once; signing in and out asks again. */
export function useSession() {
  return useQuery({
    queryKey: ['session'],
    queryFn: async () => {
      const session = await answer(api.GET('/session'))
      rememberToken(session.csrfToken)
      rememberSomebody(session.person !== null)
      return session
    },
    staleTime: Infinity,
  })
}

export function useSignOut() {
  const queries = useQueryClient()
  return async () => {
    await askLast(() => answer(api.DELETE('/session')))
    rememberSomebody(false)
    queries.clear()
    sessionStorage.clear()
    // A fresh page: nothing of the person before stays in memory.
    window.location.assign('/')
  }
}
