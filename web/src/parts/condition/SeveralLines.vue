<script setup lang="ts">
import { nextTick, useTemplateRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import ChoiceField from '../fields/ChoiceField.vue'
import NumberField from '../fields/NumberField.vue'
import ConditionLeaf from './ConditionLeaf.vue'
import { type Part, type Several, newLeaf, newSeveral } from './draft'

/** Several things that must be so, one line each, what stands under one word further in. */
const props = defineProps<{
  askable: Schemas['AskableAnswer']
  near: readonly string[]
  /** Where it stands, such as 2 for what is said under the second part; empty: the whole condition. */
  place: string
}>()
const emit = defineEmits<{ out: [] }>()
const several = defineModel<Several>({ required: true })

const DEEPEST = 6
const set = (change: Partial<Several>) => (several.value = { ...several.value, ...change })
const put = (at: number, part: Part) => set({ parts: several.value.parts.with(at, part) })
const parts = useTemplateRef<HTMLElement>('parts')
/** What is added is gone on with at once. */
async function add(part: Part): Promise<void> {
  set({ parts: [...several.value.parts, part] })
  await nextTick()
  const lines = parts.value?.querySelectorAll<HTMLElement>('[data-part]')
  lines?.[lines.length - 1]?.querySelector<HTMLElement>('input')?.focus()
}
const placeOf = (at: number) => (props.place ? `${props.place}.${at + 1}` : `${at + 1}`)
const isOne = () => props.place === '' && several.value.parts.length < 2
const canNest = () => props.place.split('.').length < DEEPEST
</script>

<template>
  <p v-if="!isOne()" class="line">
    <span v-if="place === ''">Opens when</span>
    <span v-if="several.not" class="not">it is not the case that</span>
    <ChoiceField
      :model-value="several.join"
      :label="`How many of these, ${place || 'in all'}`"
      :choices="[
        { value: 'all', title: 'all of these are true' },
        { value: 'any', title: 'any of these is true' },
        { value: 'some', title: 'at least this many are true' },
      ]"
      @update:model-value="set({ join: $event as Several['join'] })"
    />
    <NumberField
      v-if="several.join === 'some'"
      :model-value="several.least"
      :label="`How many, ${place || 'in all'}`"
      :min="1"
      :max="Math.max(1, several.parts.length)"
      @update:model-value="set({ least: $event ?? 1 })"
    />
    <template v-if="place">
      <button type="button" class="word-button small" @click="set({ not: !several.not })">say the opposite</button>
      <button type="button" class="word-button small" @click="emit('out')">take out</button>
    </template>
  </p>
  <div ref="parts" :class="{ further: !isOne() }">
    <template v-for="(part, at) in several.parts" :key="at">
      <SeveralLines
        v-if="part.kind === 'several'"
        :model-value="part"
        :askable="askable"
        :near="near"
        :place="placeOf(at)"
        @update:model-value="put(at, $event)"
        @out="set({ parts: several.parts.toSpliced(at, 1) })"
      />
      <p v-else class="line" data-part>
        <span v-if="isOne()">Opens when</span>
        <ConditionLeaf
          :model-value="part"
          :askable="askable"
          :near="near"
          :place="placeOf(at)"
          @update:model-value="put(at, $event)"
        />
        <button type="button" class="word-button small" @click="put(at, { ...part, not: !part.not })">
          say the opposite
        </button>
        <button type="button" class="word-button small" @click="set({ parts: several.parts.toSpliced(at, 1) })">
          take out
        </button>
      </p>
    </template>
    <p class="line">
      <button type="button" class="word-button" @click="add(newLeaf())">
        {{ several.parts.length ? 'and something else' : 'set a condition' }}
      </button>
      <button
        v-if="several.parts.length && canNest()"
        type="button"
        class="word-button"
        @click="add(newSeveral([newLeaf(), newLeaf()]))"
      >
        and several together
      </button>
    </p>
  </div>
</template>

<style scoped>
.further {
  display: grid;
  gap: var(--space-3);
  padding-left: var(--space-7);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-4);
}
.not {
  color: var(--accent);
}
</style>
