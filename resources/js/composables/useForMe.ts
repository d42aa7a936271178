import { useQuery } from '@tanstack/vue-query'
import { answer, api } from '@/api/client'

const A_MINUTE = 60_000

/** What waits for the person who is signed in; asked again now and then, for others work meanwhile. */
export function useForMe(isSignedIn: () => boolean = () => true) {
  return useQuery({ queryKey: ['for-me'], queryFn: () => answer(api.GET('/for-me')), refetchInterval: A_MINUTE, enabled: isSignedIn })
}
