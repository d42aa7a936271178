<script setup lang="ts">
import { onScopeDispose } from 'vue'
import type { usePaneSize } from '@/composables/usePaneSize'

/** The edge between two panes: dragged, or moved with the arrow keys; Enter or a double click closes the pane and opens it again (WAI-ARIA window splitter). */
const props = defineProps<{ pane: ReturnType<typeof usePaneSize>; label: string; side: 'before' | 'after' }>()
const STEP = 16
const towards = (pixels: number): number => (props.side === 'before' ? pixels : -pixels)

let release = (): void => undefined
function drag(event: PointerEvent): void {
  const from = { x: event.clientX, width: props.pane.width.value }
  const move = (moved: PointerEvent): void => props.pane.resize(from.width + towards(moved.clientX - from.x))
  release = (): void => {
    window.removeEventListener('pointermove', move)
    window.removeEventListener('pointerup', release)
  }
  window.addEventListener('pointermove', move)
  window.addEventListener('pointerup', release)
}
onScopeDispose(() => release())

function key(event: KeyboardEvent): void {
  const step = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key]
  if (step !== undefined) props.pane.resize(props.pane.width.value + towards(step))
  else if (event.key === 'Enter') props.pane.toggle()
  else return
  event.preventDefault()
}
</script>

<template>
  <div
    class="divider"
    role="separator"
    aria-orientation="vertical"
    tabindex="0"
    :aria-label="label"
    :aria-valuenow="pane.width.value"
    :aria-valuemin="0"
    :aria-valuemax="pane.most"
    :title="`${label}: drag or use the arrow keys; Enter or a double click closes it and opens it again`"
    @pointerdown.prevent="drag"
    @dblclick="pane.toggle()"
    @keydown="key"
  />
</template>

<style scoped>
.divider {
  inline-size: 7px;
  margin-inline: -3px;
  z-index: 1;
  cursor: col-resize;
  touch-action: none;
}
.divider::before {
  content: '';
  display: block;
  inline-size: 1px;
  block-size: 100%;
  margin-inline: 3px;
  background: var(--line);
}
.divider:hover::before {
  inline-size: 3px;
  margin-inline: 2px;
  background: var(--ink-3);
}
@media (width < 900px) {
  .divider {
    display: none;
  }
}
</style>
