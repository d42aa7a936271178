<script setup lang="ts">
import { ref } from 'vue'
import { singleLettersAreOn, switchSingleLetters } from '@/composables/useShortcuts'

const isOpen = defineModel<boolean>({ required: true })
const areOn = ref(singleLettersAreOn())
const everywhere = [
  ['Tab, first', 'skip to the content'],
  ['?', 'this list'],
  ['Escape', 'close what is open'],
] as const
const keys = [
  ['↓ or n, ↑ or p', 'next or previous finding'],
  ['e, d, a, o', 'decide on it: expected, defect, ask or open'],
  ['Enter', 'in the reason: enter the ruling; with nothing said, with the last reason'],
  ['Shift with one of these', 'rule on all that the filter means, as it stands'],
  ['Space, Shift with ↓ ↑', 'choose several, to be ruled on together'],
  ['Escape', 'choose none'],
  ['Home, End, page keys', 'move faster'],
  ['/', 'find a key'],
  ['f', 'to the filter'],
] as const
const nearKeys = [
  ['↓ or n, ↑ or p', 'next or previous pair'],
  ['c, r', 'confirm or refuse it'],
  ['u', 'undo what was decided last'],
] as const
const lists = { 'On every page': everywhere, 'In Review': keys, 'Among pairs of near keys': nearKeys } as const
</script>

<template>
  <el-dialog v-model="isOpen" title="Keyboard" width="480">
    <template v-for="(list, where) in lists" :key="where">
      <h2>{{ where }}</h2>
      <dl>
        <template v-for="[key, what] in list" :key="key">
          <dt class="cell">{{ key }}</dt>
          <dd>{{ what }}</dd>
        </template>
      </dl>
    </template>
    <el-checkbox
      :model-value="areOn"
      label="Single letters and signs act as keys"
      @update:model-value="((areOn = Boolean($event)), switchSingleLetters(areOn))"
    />
  </el-dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 16px;
  margin: 0 0 12px;
}
dd {
  margin: 0;
}
</style>
