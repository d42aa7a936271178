<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { decisionName } from '@/format/classes'
import { counted } from '@/format/counts'
import type { Target, Why } from '@/stations/review/useRulings'
import { missing } from '@/stations/review/useWhy'

/** Rules on what is looked at: a decision, then why. Nothing is entered before both are said. */
const props = defineProps<{
  target: Target | null
  chosen: number
  /** what Shift means: all that the filter means, in words */
  all: string | null
  people: readonly Schemas['PersonOfMigration'][]
  /** the decision that waits for its reason, and whether it is about all that the filter means */
  waiting: { decision: Schemas['Decision']; onAll: boolean } | null
  recent: readonly string[]
  isBusy: boolean
}>()
const emit = defineEmits<{ decide: [decision: Schemas['Decision']]; confirm: []; cancel: [] }>()
const why = defineModel<Why>('why', { required: true })
const isPinned = defineModel<boolean>('pinned', { required: true })

const decisions = ['expected', 'defect', 'ask', 'open'] as const
const about = computed(() => {
  if (props.target === null) return 'Choose a finding to rule on it.'
  const some =
    props.target.scope === 'selection' ? `Applies to the ${counted(props.chosen, 'finding')} that you chose.` : `Applies to this ${props.target.scope}.`
  return props.all === null ? some : `${some} With Shift in the list: to all ${props.all}.`
})
const asks = computed(() => {
  if (props.waiting === null) return ''
  const what = props.waiting.onAll ? `all ${props.all ?? ''}` : props.target?.scope === 'selection' ? counted(props.chosen, 'finding') : 'it'
  const wanted = missing(props.waiting.decision, why.value)
  const first = `${decisionName(props.waiting.decision)}, on ${what}: `
  if (wanted === 'person') return `${first}who is asked?`
  return wanted === 'reason' && props.recent.length > 0
    ? `${first}why? Enter takes the last reason.`
    : wanted === 'reason'
      ? `${first}why?`
      : `${first}Enter enters it.`
})
const panel = ref<HTMLElement | null>(null)
watch(
  () => props.waiting,
  async (waiting) => {
    if (waiting === null) return
    await nextTick()
    panel.value?.querySelector<HTMLElement>(waiting.decision === 'ask' && why.value.askedId === null ? '.asked input' : '#ruling-reason')?.focus()
  },
)
async function take(reason: string): Promise<void> {
  why.value = { ...why.value, reason }
  await nextTick()
  emit('confirm')
}
</script>

<template>
  <section ref="panel" class="panel" aria-label="Ruling" @keydown.esc.stop="emit('cancel')">
    <div class="options">
      <button
        v-for="decision in decisions"
        :key="decision"
        type="button"
        :class="{ waits: waiting?.decision === decision }"
        :aria-pressed="waiting?.decision === decision"
        :disabled="target === null || isBusy"
        @click="emit('decide', decision)"
      >
        {{ decisionName(decision) }}<kbd aria-hidden="true">{{ decision[0] }}</kbd>
      </button>
    </div>
    <p v-if="waiting" class="asks" role="status">{{ asks }}</p>
    <div class="reason">
      <el-input id="ruling-reason" v-model="why.reason" placeholder="Reason" aria-label="Reason" maxlength="2000" @keydown.enter.prevent="emit('confirm')" />
      <el-button size="small" :type="isPinned ? 'primary' : 'default'" :aria-pressed="isPinned" @click="isPinned = !isPinned">{{
        isPinned ? 'Pinned for the next' : 'Pin'
      }}</el-button>
    </div>
    <ol v-if="waiting && recent.length > 0" class="recent" aria-label="Last reasons">
      <li v-for="reason in recent" :key="reason">
        <button type="button" class="plain" @click="take(reason)">{{ reason }}</button>
      </li>
    </ol>
    <div class="more">
      <el-input v-model="why.ticket" size="small" placeholder="Ticket" aria-label="Ticket" maxlength="100" @keydown.enter.prevent="emit('confirm')" />
      <el-select v-model="why.askedId" :persistent="false" class="asked" size="small" clearable placeholder="Who to ask" aria-label="Who to ask">
        <el-option v-for="person in people" :key="person.id" :value="person.id" :label="`${person.name}, ${person.role}`" />
      </el-select>
    </div>
    <div v-if="waiting" class="enter">
      <el-button type="primary" size="small" :loading="isBusy" @click="emit('confirm')">Enter the ruling</el-button>
      <el-button size="small" @click="emit('cancel')">Not now</el-button>
    </div>
    <p v-else class="quiet" data-figure="findings">{{ about }}</p>
  </section>
</template>

<style scoped>
.panel {
  border-block-start: 1px solid var(--line);
  padding: 10px 14px;
  background: var(--floor);
  display: grid;
  gap: 8px;
}
.options,
.reason {
  display: flex;
  gap: 6px;
}
.more {
  display: grid;
  grid-template-columns: 2fr 3fr;
  gap: 6px;
}
.options button {
  flex: auto; /* as wide as its words, for they are not equally long */
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 5px 4px;
  background: var(--sheet);
  font-weight: 600;
  font-size: 13px;
  cursor: pointer;
}
.options .waits {
  background: var(--ink);
  color: #fff;
}
.options button:disabled {
  color: var(--ink-3);
  cursor: default;
}
kbd {
  font: 12px var(--cell);
  color: var(--ink-3);
  margin-inline-start: 4px;
}
.waits kbd {
  color: inherit;
}
.recent {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
  font-size: 12.5px;
  max-block-size: 96px;
  overflow: auto;
}
.recent button {
  text-align: start;
  overflow-wrap: anywhere;
}
p {
  margin: 0;
  font-size: 12px;
}
.asks {
  font-size: 13px;
  font-weight: 600;
}
</style>
