<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Joining } from '@/composables/useJoin'

/** Somebody else changed the plan at the same time: what was joined, and what has to be chosen. */
const props = defineProps<{ joined: Joining | null }>()
const emit = defineEmits<{ choose: [settled: { mine: string[]; theirs: string[] }]; dismiss: [] }>()

const chosen = ref<Record<string, 'mine' | 'theirs'>>({})
watch(
  () => props.joined,
  () => (chosen.value = {}),
)
const clashes = computed(() => props.joined?.clashes ?? [])
const isChosen = computed(() => clashes.value.every(({ at }) => chosen.value[at] !== undefined))
const by = (who: 'mine' | 'theirs'): string[] => clashes.value.filter(({ at }) => chosen.value[at] === who).map(({ at }) => at)
</script>

<template>
  <div v-if="joined && clashes.length === 0" class="joined" role="status">
    <span>{{ joined.by }} changed the plan at the same time; both are kept: {{ joined.theirChanges.join('; ') || 'nothing that a plan says in words' }}.</span>
    <el-button link @click="emit('dismiss')">Close</el-button>
  </div>
  <el-dialog
    :model-value="clashes.length > 0"
    title="Two of you changed the same"
    width="min(760px, 95vw)"
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
  >
    <p>{{ joined?.by }} changed the plan at the same time. All else is kept of both; choose what shall stand here:</p>
    <fieldset v-for="clash in clashes" :key="clash.at">
      <label><input v-model="chosen[clash.at]" type="radio" :name="clash.at" value="mine" /> <b>yours:</b> {{ clash.mine }}</label>
      <label
        ><input v-model="chosen[clash.at]" type="radio" :name="clash.at" value="theirs" /> <b>{{ joined?.by }}:</b> {{ clash.theirs }}</label
      >
    </fieldset>
    <template #footer>
      <el-button type="primary" :disabled="!isChosen" @click="emit('choose', { mine: by('mine'), theirs: by('theirs') })">Keep what I chose</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.joined {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  padding: 6px 16px;
  background: var(--mark);
  font-size: 13px;
}
p {
  margin: 0 0 8px;
}
fieldset {
  border: 1px solid var(--line);
  margin: 0 0 8px;
  padding: 8px 12px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 18px;
  overflow-wrap: anywhere;
}
</style>
