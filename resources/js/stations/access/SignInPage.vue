<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { reactive } from 'vue'
import { answer, api } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import AccessFrame from '@/stations/access/AccessFrame.vue'

const queries = useQueryClient()
const entered = reactive({ email: '', password: '' })
const { mutate, isPending, error } = useMutation({
  mutationFn: () => answer(api.POST('/session', { body: { ...entered } })),
  onSuccess: () => queries.invalidateQueries({ queryKey: ['session'] }),
})
</script>

<template>
  <AccessFrame heading="Who is there?" note="Nine Tally shows what arrived, what did not, and why.">
    <el-form label-position="top" @submit.prevent="mutate()">
      <el-form-item label="E-mail address"><el-input id="email" v-model="entered.email" name="email" autocomplete="username" autofocus /></el-form-item>
      <el-form-item label="Password"
        ><el-input id="password" v-model="entered.password" name="password" type="password" autocomplete="current-password"
      /></el-form-item>
      <el-button type="primary" native-type="submit" :loading="isPending" :disabled="entered.email === '' || entered.password === ''">Sign in</el-button>
    </el-form>
    <ErrorNote :error="error" />
  </AccessFrame>
</template>
