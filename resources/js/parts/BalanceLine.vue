<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import FigureValue from '@/parts/FigureValue.vue'

const props = defineProps<{ rows: Schemas['Rows']; chosen?: string | null }>()
const emit = defineEmits<{ choose: [rowClass: Schemas['RowClass']] }>()

interface Term {
  rows: number
  word: string
  rowClass: Schemas['RowClass'] | null
}

const terms = (side: 'source' | 'target'): Term[] => {
  const ledger = props.rows[side]
  const unmatched: Term =
    side === 'source'
      ? { rows: props.rows.source.missing, word: 'missing', rowClass: 'missing' }
      : { rows: props.rows.target.extra, word: 'extra', rowClass: 'extra' }
  return [
    { rows: ledger.agreed, word: 'agreed', rowClass: null },
    { rows: ledger.changed, word: 'changed', rowClass: 'changed' },
    unmatched,
    { rows: ledger.repeated, word: 'repeated', rowClass: 'repeated' },
    { rows: ledger.unkeyed, word: 'unkeyed', rowClass: 'unkeyed' },
  ]
}

const sides = computed(() => [
  { id: 'source' as const, name: 'Source', terms: terms('source') },
  { id: 'target' as const, name: 'Target', terms: terms('target') },
])
const refused = computed(() => props.rows.source.refused + props.rows.target.refused)
</script>

<template>
  <div class="balance">
    <table aria-label="Every row accounted for">
      <tbody>
        <tr v-for="side in sides" :key="side.id" :class="side.id">
          <th scope="row">{{ side.name }}</th>
          <td class="figure whole"><FigureValue :name="`rows/${side.id}/prepared`" :of="rows[side.id].prepared" /></td>
          <template v-for="(term, position) in side.terms" :key="term.word">
            <td class="sign">{{ position === 0 ? '=' : '+' }}</td>
            <td class="figure"><FigureValue :name="`rows/${side.id}/${term.word}`" :of="term.rows" /></td>
            <td>
              <button
                v-if="term.rowClass !== null && term.rows > 0"
                type="button"
                class="plain term"
                :aria-pressed="chosen === term.rowClass"
                :aria-label="`Show the ${count(term.rows)} ${term.word} rows`"
                @click="emit('choose', term.rowClass)"
              >
                {{ term.word }}
              </button>
              <template v-else>{{ term.word }}</template>
            </td>
          </template>
        </tr>
      </tbody>
    </table>
    <button v-if="refused > 0" type="button" class="plain term refused" :aria-pressed="chosen === 'refused'" @click="emit('choose', 'refused')">
      <FigureValue name="rows/source/refused + rows/target/refused" :of="refused" /> refused
    </button>
  </div>
</template>

<style scoped>
.balance {
  display: flex;
  gap: 20px;
  align-items: center;
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  font-size: 13px;
  line-height: 20px;
  color: var(--ink-2);
}
td,
th {
  padding: 0 4px;
  white-space: nowrap;
}
th {
  text-align: start;
  font-weight: 650;
}
.figure {
  text-align: end;
  font-weight: 650;
  color: var(--ink);
  padding-inline-start: 8px;
}
.sign {
  font-family: var(--cell);
  color: var(--ink-3);
}
.source th,
.source .whole {
  color: var(--src);
}
.target th,
.target .whole {
  color: var(--tgt);
}
.term {
  text-decoration: underline;
  text-decoration-color: var(--edge);
  text-underline-offset: 3px;
}
.term[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
  text-decoration-thickness: 2px;
}
.refused {
  font-size: 13px;
  color: var(--ink-2);
  white-space: nowrap;
}
@media (width < 700px) {
  .balance {
    flex-wrap: wrap;
    max-inline-size: 100%;
  }
  tr {
    display: flex;
    flex-wrap: wrap;
  }
}
</style>
