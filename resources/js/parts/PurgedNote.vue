<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import StationHead from '@/parts/StationHead.vue'

/** In the place of what a tally found, where it was purged. */
defineProps<{ purge: Schemas['Purged']; tally: number; migration: number }>()
</script>

<template>
  <section>
    <StationHead :heading="`The content of tally ${tally} was purged`" />
    <div class="note">
      <p>{{ purge.by }} purged it, {{ moment(purge.at) }}: {{ purge.reason }}</p>
      <p>
        Its figures, rulings, signatures and hashes stay, and its report says that the rest is gone. What was purged is found on
        <RouterLink :to="`/migrations/${migration}/content`">the page of kept content</RouterLink>.
      </p>
    </div>
  </section>
</template>

<style scoped>
.note {
  padding: 12px 16px;
  display: grid;
  gap: 8px;
  max-inline-size: 68ch;
}
p {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
