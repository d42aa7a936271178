<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** How far a dataset is on its way to a signature, in two lines: whether it is good enough, and who is next. */
defineProps<{ signing: NonNullable<Schemas['Board']['datasets'][number]['signing']>; dataset: number }>()
</script>

<template>
  <RouterLink :to="`/datasets/${dataset}/sign`" class="verdict" :class="{ fails: signing.fails > 0 }" data-figure="board/datasets">{{
    signing.verdict
  }}</RouterLink>
  <span class="small" :class="{ holds: signing.state === 'accepted' }">
    <template v-if="signing.state === 'accepted'">✓ accepted</template>
    <template v-else-if="signing.state === 'none'">nobody has signed</template>
    <template v-else>{{ signing.state }}{{ signing.nextRole === null ? '' : `, next a ${signing.nextRole}` }}</template>
  </span>
  <RouterLink v-for="block in signing.blocked" :key="block.words" :to="block.link" class="small fails" data-figure="board/datasets">{{
    block.words
  }}</RouterLink>
</template>

<style scoped>
.verdict {
  display: block;
  color: inherit;
}
.verdict::first-letter {
  text-transform: uppercase;
}
.fails {
  color: var(--fail);
}
.holds {
  color: var(--pass);
}
.small {
  display: block;
  font-size: 12.5px;
}
</style>
