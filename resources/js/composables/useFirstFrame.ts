import { onMounted, onScopeDispose, type Ref, ref } from 'vue'

/** Whether the first frame of a component has been drawn. What is not looked for first waits until then, so that the rest is there sooner. */
export function useFirstFrame(): Readonly<Ref<boolean>> {
  const isDrawn = ref(false)
  let timer: ReturnType<typeof setTimeout> | undefined
  let frame = 0
  onMounted(() => {
    // A callback of the frame comes before it is drawn; a timer that it sets, after.
    frame = requestAnimationFrame(() => (timer = setTimeout(() => (isDrawn.value = true))))
  })
  onScopeDispose(() => {
    cancelAnimationFrame(frame)
    clearTimeout(timer)
  })
  return isDrawn
}
