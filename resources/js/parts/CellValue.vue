<script setup lang="ts">
import { computed } from 'vue'
import type { Stretch } from '@/format/difference'
import { pieces } from '@/format/invisible'

/** The value of a cell: white space kept, what cannot be seen drawn as a named token, what differs marked. */
const props = defineProps<{ stretches: readonly Stretch[]; side?: 'source' | 'target' }>()

const drawn = computed(() => props.stretches.map((stretch) => ({ differs: stretch.differs, pieces: pieces(stretch.text) })))
/** What the server says instead of a value that is kept from this person. */
const isMasked = computed(() => props.stretches.map((stretch) => stretch.text).join('') === '(masked)')
const isBlank = computed(() => props.stretches.every((stretch) => stretch.text === ''))
</script>

<template>
  <span class="cell" :class="{ src: side === 'source', tgt: side === 'target' }">
    <span v-if="isBlank || isMasked" class="blank">{{ isMasked ? 'masked' : 'blank' }}</span>
    <template v-for="(stretch, position) in drawn" v-else :key="position"
      ><component :is="stretch.differs ? 'mark' : 'span'" :class="side"
        ><template v-for="(piece, at) in stretch.pieces" :key="at"
          ><span v-if="piece.isToken" class="token">{{ piece.text }}</span
          ><template v-else>{{ piece.text }}</template></template
        ></component
      ></template
    >
  </span>
</template>

<style scoped>
mark {
  color: inherit;
  border-radius: 2px;
  background: var(--line);
}
mark.source {
  background: var(--src-wash);
}
mark.target {
  background: var(--tgt-wash);
}
.token {
  font: 12px var(--text);
  border: 1px solid currentcolor;
  border-radius: 3px;
  padding: 0 3px;
  margin-inline: 1px;
}
.blank {
  font: italic 12px var(--text);
  color: var(--ink-3);
}
</style>
