<script setup lang="ts">
import { ref, useId, useTemplateRef } from 'vue'
import RemarkOffers from './RemarkOffers.vue'
import type { Made } from './remarks'

/** Where something is said of a piece, with what was said before offered as one types. */
const text = defineModel<string>({ required: true })
const props = defineProps<{
  /** Read out where no label is seen. */
  label?: string
  /** Its id, for a label that is seen. */
  name?: string
  made: Made[]
  rows?: number
  /** In characters. */
  longest: number
}>()
const emit = defineEmits<{ keydown: [event: KeyboardEvent] }>()
const id = useId()
const at = ref(-1)
const isThere = ref(false)
const offers = useTemplateRef<{ pressed: (event: KeyboardEvent) => boolean }>('offers')

function pressed(event: KeyboardEvent): void {
  if (!offers.value?.pressed(event)) emit('keydown', event)
}
/** What is taken stands in the place of the line that is being typed. */
function take(said: string): void {
  const line = text.value.lastIndexOf('\n') + 1
  text.value = (text.value.slice(0, line) + said).slice(0, props.longest)
}
const lineOf = (all: string) => all.slice(all.lastIndexOf('\n') + 1)
</script>

<template>
  <div>
    <v-textarea
      :id="name"
      v-model="text"
      :aria-label="label"
      :rows="rows ?? 1"
      auto-grow
      :maxlength="longest"
      aria-autocomplete="list"
      :aria-activedescendant="at >= 0 ? `${id}-${at}` : undefined"
      @focus="isThere = true"
      @blur="isThere = false"
      @keydown="pressed"
    />
    <RemarkOffers
      v-if="isThere"
      :id="id"
      ref="offers"
      v-model:at="at"
      :typed="lineOf(text)"
      :made="made"
      @take="take"
    />
  </div>
</template>
