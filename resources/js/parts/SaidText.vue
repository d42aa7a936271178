<script setup lang="ts">
import type { Said } from '@/format/said'

/** A sentence whose figures carry their names in the page, so that each can be held against what was computed. */
defineProps<{ said: Said }>()
</script>

<template>
  <template v-for="(piece, place) in said" :key="place"
    ><template v-if="typeof piece === 'string'">{{ piece }}</template
    ><span v-else :data-figure="piece.name">{{ piece.text }}</span></template
  >
</template>
