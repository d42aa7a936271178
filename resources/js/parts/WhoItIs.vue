<script setup lang="ts">
/** Once more who somebody is, before they do what cannot be taken back. */
defineProps<{ name: string; needsCode: boolean }>()
const password = defineModel<string>('password', { required: true })
const code = defineModel<string>('code', { required: true })
</script>

<template>
  <label :for="`${name}-password`">Your password</label>
  <el-input :id="`${name}-password`" v-model="password" type="password" autocomplete="current-password" />
  <template v-if="needsCode">
    <label :for="`${name}-code`">Code of your authenticator</label>
    <el-input :id="`${name}-code`" v-model="code" autocomplete="one-time-code" inputmode="numeric" maxlength="100" />
  </template>
</template>
