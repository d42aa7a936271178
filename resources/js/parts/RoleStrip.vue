<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '@/api/client'
import { usePeople } from '@/composables/usePeople'

/** Who may only look at a station is told whose work it is, so that there is somebody to ask. Sign says it of each signature itself. */
const props = defineProps<{ course: Schemas['Course'] }>()

const NAMED = 3
/** What is done at a station by those whose work it is; the rest of a station is for everybody. */
const WORK: Record<string, string> = {
  deliver: 'deliver',
  prepare: 'prepare',
  match: 'choose the key and tally',
  tally: 'tally',
  prove: 'choose what is proved',
}
const RULINGS: Record<string, string> = { review: 'rule on findings', defects: 'say who mends a defect', 'eye-check': 'look at rows by eye' }

const route = useRoute()
const station = computed(() => /^\/datasets\/\d+\/(?:prove\/(?=eye-check))?([a-z-]+)/.exec(route.path)?.[1] ?? '')
const work = computed(() => {
  const { mayWork, mayRule } = props.course
  if (!mayWork && station.value in WORK) return { does: WORK[station.value] ?? '', may: 'mayWork' as const }
  return !mayRule && station.value in RULINGS ? { does: RULINGS[station.value] ?? '', may: 'mayRule' as const } : null
})
const people = usePeople(() => props.course.migration.id)
const who = computed(() => people.value.filter((person) => work.value !== null && person[work.value.may]).map(({ name, role }) => `${name} (${role})`))
const others = computed(() => who.value.length - NAMED)
</script>

<template>
  <p v-if="work" class="strip quiet">
    You may look at this.
    <template v-if="who.length === 0">Nobody in this migration may {{ work.does }}: whoever runs Nine Tally can add somebody.</template>
    <template v-else>
      To {{ work.does }}, ask {{ who.slice(0, NAMED).join(', ') }}<template v-if="others > 0"> or {{ others === 1 ? 'one other' : 'others' }}</template
      >.
    </template>
  </p>
</template>

<style scoped>
.strip {
  margin: 0;
  padding: 5px 16px;
  font-size: 13px;
  border-block-end: 1px solid var(--line);
  background: var(--sheet);
}
</style>
