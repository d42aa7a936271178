<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import SignDialog from '@/parts/SignDialog.vue'

/** Tallies on which the person's signature is the next: those with nothing in the way can be signed together, one sentence each. */
const props = defineProps<{ items: readonly Schemas['WaitingSignature'][] }>()
const emit = defineEmits<{ changed: [] }>()
const chosen = ref<number[]>([])
const migrations = computed(() => [...new Map(props.items.map(({ migration }) => [migration.id, migration])).values()])
const of = (migration: number) => props.items.filter((item) => item.migration.id === migration)
const ready = (migration: number) => of(migration).filter((item) => item.blocks.length === 0)
const picked = (migration: number) => ready(migration).filter((item) => chosen.value.includes(item.tally))
const signing = ref<number | null>(null)
const toggle = (tally: number): void => {
  chosen.value = chosen.value.includes(tally) ? chosen.value.filter((one) => one !== tally) : [...chosen.value, tally]
}
</script>

<template>
  <section aria-label="Waiting for your signature">
    <h1>Waiting for your signature</h1>
    <template v-for="migration in migrations" :key="migration.id">
      <h2 v-if="migrations.length > 1">{{ migration.name }}</h2>
      <ul>
        <li v-for="item in of(migration.id)" :key="item.tally">
          <input
            type="checkbox"
            :checked="chosen.includes(item.tally)"
            :disabled="item.blocks.length > 0"
            :aria-label="`Sign ${item.dataset}, tally ${item.tallyNumber}`"
            @change="toggle(item.tally)"
          />
          <span>
            <RouterLink :to="`/datasets/${item.datasetId}/sign`">{{ item.dataset }}, tally {{ item.tallyNumber }}</RouterLink>
            <span class="said" data-figure="for-me/toSign">{{ item.sentence }}</span>
            <span class="quiet"
              >{{ item.last.person }} {{ item.last.act }} it, {{ moment(item.last.at) }}{{ item.last.reason && `: ${item.last.reason}` }}</span
            >
            <span v-for="block in item.blocks" :key="block.words" class="block"
              ><RouterLink :to="block.link" data-figure="for-me/toSign">{{ block.words }}</RouterLink></span
            >
          </span>
        </li>
      </ul>
      <el-button v-if="ready(migration.id).length > 0" type="primary" :disabled="picked(migration.id).length === 0" @click="signing = migration.id">{{
        picked(migration.id).length === 0 ? 'Choose what you sign' : `Sign ${counted(picked(migration.id).length, 'tally', 'tallies')}`
      }}</el-button>
      <SignDialog
        v-if="signing === migration.id"
        :migration="migration.id"
        :items="picked(migration.id)"
        :needs-code="picked(migration.id).some(({ needsCode }) => needsCode)"
        figure="for-me/toSign"
        @close="signing = null"
        @changed="emit('changed')"
      />
    </template>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 8px 0 12px;
  display: grid;
  gap: 12px;
}
li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 10px;
  align-items: start;
}
li > span > span {
  display: block;
  font-size: 13px;
  overflow-wrap: anywhere;
}
.block a {
  color: var(--fail);
}
</style>
