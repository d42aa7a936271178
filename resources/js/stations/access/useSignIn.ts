import { useMutation } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { answer, api, ApiProblem } from '@/api/client'

const isAskedForMore = (problem: unknown): boolean => problem instanceof ApiProblem && problem.code === 'second-factor'

/**
 * What is typed to sign in, and what comes of it. The code is asked for when the password is right, of whoever has a second factor: that is a question, and no
 * error.
 */
export function useSignIn(options: { email?: () => string; before?: () => Promise<unknown>; then: () => Promise<unknown> }) {
  const entered = reactive({ email: '', password: '', code: '' })
  const asksForCode = ref(false)
  const { mutate, isPending, error } = useMutation({
    mutationFn: async () => {
      await options.before?.()
      const { code, ...typed } = entered
      const known = { ...typed, email: options.email?.() ?? typed.email }
      await answer(api.POST('/session', { body: code === '' ? known : { ...known, code } }))
    },
    onError: (problem) => {
      if (isAskedForMore(problem)) asksForCode.value = true
    },
    onSuccess: async () => {
      Object.assign(entered, { password: '', code: '' })
      asksForCode.value = false
      await options.then()
    },
  })
  const isIncomplete = computed(() => entered.password === '' || (asksForCode.value && entered.code === ''))
  return { entered, asksForCode, isIncomplete, mutate, isPending, refusal: computed(() => (isAskedForMore(error.value) ? null : error.value)) }
}
