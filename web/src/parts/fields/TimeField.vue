<script setup lang="ts">
import { ref, watch } from 'vue'
import { typedTime } from '../../foundation/dates/typedDate'

/** A time of day: typed – “10:40”, “1040”, “2pm” – or picked in steps of five minutes. */
defineProps<{ label: string; disabled?: boolean }>()
/** `10:40`; empty: none. */
const time = defineModel<string>({ required: true })

const text = ref(time.value)
const problem = ref('')
const picking = ref(false)
watch(time, (now) => {
  text.value = now
  problem.value = ''
})

function read(): void {
  const typed = typedTime(text.value ?? '')
  problem.value = 'problem' in typed ? typed.problem : ''
  if ('problem' in typed) return
  time.value = typed.time ?? ''
  text.value = time.value
}

function pick(picked: string | null): void {
  if (picked) time.value = picked
}

/** Enter reads what was typed before it does anything else: what comes of it is seen first. */
function readFirst(event: KeyboardEvent): void {
  const before = text.value
  read()
  if (text.value !== before || problem.value) event.preventDefault()
}
</script>

<template>
  <v-text-field
    v-model="text"
    class="time"
    autocomplete="off"
    inputmode="numeric"
    :aria-label="label"
    placeholder="00:00"
    :disabled="disabled"
    :error-messages="problem"
    @blur="read"
    @keydown.enter="readFirst"
  >
    <template #append-inner>
      <v-menu v-model="picking" :close-on-content-click="false">
        <template #activator="{ props: opener }">
          <button v-bind="opener" type="button" class="opener" :aria-label="`${label}: pick it`" :disabled="disabled">
            <v-icon icon="$dropdown" size="16" />
          </button>
        </template>
        <v-time-picker
          :model-value="time"
          format="24hr"
          hide-title
          :allowed-minutes="(minute: number) => minute % 5 === 0"
          @update:model-value="pick"
          @update:minute="picking = false"
        />
      </v-menu>
    </template>
  </v-text-field>
</template>

<style scoped>
.time {
  width: 84px;
}
</style>
