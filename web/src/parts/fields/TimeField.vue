<script setup lang="ts">
import { ref } from 'vue'
import { typedTime } from '../../foundation/dates/typedDate'
import { useTyped } from './useTyped'

/** A time of day: typed – “10:40”, “1040”, “2pm” – or picked in steps of five minutes. */
defineProps<{ label: string; disabled?: boolean }>()
/** `10:40`; empty: none. */
const time = defineModel<string>({ required: true })

const { text, problem, settle, settleFirst, rewrite } = useTyped(
  time,
  () => time.value,
  (written) => {
    const typed = typedTime(written)
    return 'problem' in typed ? typed : { value: typed.time ?? '' }
  },
)
const picking = ref(false)

function pick(picked: string | null): void {
  if (picked) time.value = picked
  rewrite()
}
</script>

<template>
  <v-text-field
    v-model="text"
    class="time"
    :class="{ unread: problem }"
    autocomplete="off"
    inputmode="numeric"
    :aria-label="label"
    placeholder="00:00"
    :disabled="disabled"
    :error-messages="problem"
    @blur="settle"
    @keydown.enter="settleFirst"
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
