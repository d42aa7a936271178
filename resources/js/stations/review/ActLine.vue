<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { togetherWith, whyOf } from '@/format/acts'
import { decisionName } from '@/format/classes'
import { moment } from '@/format/moments'

/** The act that stands for a finding: what was decided, by whom, when and why. */
const props = defineProps<{ act: Schemas['Ruling']; tally: number }>()
const said = computed(() => {
  const { act } = props
  const where = act.tally === undefined || act.tally === props.tally ? '' : `, in tally ${act.tally}`
  return `${act.person}, ${moment(act.at)}${where}${togetherWith(act)}`
})
const why = computed(() => whyOf(props.act))
</script>

<template>
  <span class="act">
    <b>{{ act.decision === null ? '' : decisionName(act.decision) }}</b> {{ said }}<span v-if="why !== ''" data-ordinal>: {{ why }}</span>
  </span>
</template>

<style scoped>
.act {
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
</style>
