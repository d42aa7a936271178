<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { figures, joined, named, type Said } from '@/format/said'
import SaidText from '@/parts/SaidText.vue'

/** What became of rows that share their key on a side, as the policy of that side treats them. */
const props = withDefaults(defineProps<{ repeats: Schemas['Repeats']; within?: string }>(), { within: 'keys' })

const said = computed<Said[]>(() =>
  (['source', 'target'] as const).flatMap((side) => {
    const { setAside, notKept, kept } = props.repeats[side]
    // The engine and the API write their names differently.
    const name = (engine: string, api: string): string => `${props.within}/${named(side, props.within === 'keys' ? engine : api)}`
    const parts: Said[] = []
    if (setAside > 0) parts.push([...figures(name('set_aside', 'setAside'), setAside, 'row'), ' set aside'])
    if (notKept > 0) {
      parts.push([...figures(name('not_kept', 'notKept'), notKept, 'row'), ' not kept beside ', ...figures(name('kept', 'kept'), kept, 'row'), ' kept'])
    }
    return parts.length === 0 ? [] : [[`Keys that repeat in the ${side}: `, ...joined(parts), '.']]
  }),
)
</script>

<template>
  <p v-for="(line, place) in said" :key="place" class="repeats"><SaidText :said="line" /></p>
</template>

<style scoped>
.repeats {
  margin: 0;
  font-size: 13px;
  color: var(--ink-2);
}
</style>
