<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import NumberField from '../../../parts/fields/NumberField.vue'
import TickField from '../../../parts/fields/TickField.vue'
import WordField from '../../../parts/fields/WordField.vue'
import { MOST_LEVELS, addLevel } from './rubricDraft'

/** One criterion of a rubric being written: what is judged, and its levels side by side. */
const props = defineProps<{ place: number; many: number }>()
const criterion = defineModel<Schemas['CriterionForm']>({ required: true })
const emit = defineEmits<{ move: [by: -1 | 1]; remove: [] }>()
const name = computed(() => criterion.value.title || `criterion ${props.place + 1}`)

/** A range begins as the points it was, and up to them again. */
function setRange(level: Schemas['RubricLevelForm'], isRange: boolean): void {
  level.isRange = isRange
  if (!isRange || level.to < level.from) level.to = level.from
}
</script>

<template>
  <li class="row">
    <div class="what">
      <WordField
        v-model="criterion.title"
        :label="`Criterion ${place + 1}`"
        placeholder="What is judged"
        :maxlength="100"
      />
      <p class="line small">
        <span>counts</span>
        <NumberField v-model="criterion.weight" :label="`Weight of ${name}`" :max="10000" :decimals="2" />
        <span>{{ criterion.weight === 1 ? 'time' : 'times' }}</span>
      </p>
      <TickField v-model="criterion.isOptional" class="small" label="optional" />
      <p class="line small">
        <button
          v-if="place > 0"
          type="button"
          class="word-button"
          :aria-label="`move up ${name}`"
          @click="emit('move', -1)"
        >
          move up
        </button>
        <button
          v-if="place < many - 1"
          type="button"
          class="word-button"
          :aria-label="`move down ${name}`"
          @click="emit('move', 1)"
        >
          move down
        </button>
        <button
          v-if="many > 1"
          type="button"
          class="word-button"
          :aria-label="`remove ${name}`"
          @click="emit('remove')"
        >
          remove
        </button>
      </p>
    </div>
    <ol class="levels" :aria-label="`Levels of ${name}`">
      <li v-for="(level, at) in criterion.levels" :key="at">
        <p class="line">
          <NumberField
            v-model="level.from"
            :label="`${level.isRange ? 'Points from' : 'Points'}, level ${at + 1} of ${name}`"
            :max="10000"
            :decimals="2"
          />
          <template v-if="level.isRange">
            <span>to</span>
            <NumberField
              v-model="level.to"
              :label="`Points to, level ${at + 1} of ${name}`"
              :max="10000"
              :decimals="2"
            />
          </template>
          <WordField
            v-model="level.name"
            class="name"
            :label="`Name of level ${at + 1} of ${name}`"
            placeholder="name"
            :maxlength="100"
          />
        </p>
        <v-textarea
          v-model="level.words"
          class="words"
          rows="2"
          auto-grow
          maxlength="1000"
          placeholder="What the work shows"
          :aria-label="`What the work shows at level ${at + 1} of ${name}`"
        />
        <p class="line small">
          <button
            type="button"
            class="word-button"
            :aria-label="`${level.isRange ? 'one number' : 'a range'} for level ${at + 1} of ${name}`"
            @click="setRange(level, !level.isRange)"
          >
            {{ level.isRange ? 'one number' : 'a range' }}
          </button>
          <button
            v-if="criterion.levels.length > 1"
            type="button"
            class="word-button"
            :aria-label="`remove level ${at + 1} of ${name}`"
            @click="criterion.levels.splice(at, 1)"
          >
            remove
          </button>
        </p>
      </li>
      <li v-if="criterion.levels.length < MOST_LEVELS" class="more">
        <button
          type="button"
          class="word-button small"
          :aria-label="`Add a level to ${name}`"
          @click="addLevel(criterion)"
        >
          Add a level
        </button>
      </li>
    </ol>
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr);
  gap: var(--space-6);
  padding: var(--space-4) 0;
  border-top: var(--stroke-hair) solid var(--hair);
}
.what,
.levels > li {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-2);
  align-content: start;
}
.levels {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(168px, 1fr));
  gap: var(--space-4) var(--space-5);
}
.name {
  min-width: 72px;
  flex: 1;
}
.words :deep(.v-field__input) {
  padding: var(--space-3);
  font-size: inherit;
}
.more {
  align-self: center;
}
</style>
