<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useAnswer } from '../../../foundation/useAnswer'
import { useLevels } from '../../../foundation/levels'
import { counted } from '../../../foundation/words'
import WordField from '../../../parts/fields/WordField.vue'

/** The rubrics of all one's courses, to take one over as it is. */
const props = defineProps<{ edition: number }>()
const emit = defineEmits<{ taken: [rubric: Schemas['RubricForm']]; close: [] }>()

const levels = useLevels()
const answer = useAnswer(() => questions.rubrics(props.edition))
const typed = ref('')
const found = computed(() => {
  const words = typed.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (answer.data.value ?? []).filter((one) => {
    const text = `${one.rubric.name} ${one.where} ${one.rubric.criteria.map((c) => c.title).join(' ')}`.toLowerCase()
    return words.every((word) => text.includes(word))
  })
})
</script>

<template>
  <div class="pick">
    <p v-if="!answer.data.value" class="small" role="status">
      {{ answer.problem.value?.title ?? 'Reading the rubrics of your courses …' }}
    </p>
    <template v-else>
      <p class="line">
        <WordField v-model="typed" label="Find a rubric" placeholder="find by name, criterion or course" />
        <span class="small second">{{ counted(found.length, 'rubric', 'rubrics') }}</span>
      </p>
      <ul class="ruled list" tabindex="0" aria-label="Rubrics of your courses">
        <li v-for="(one, at) in found" :key="at">
          <span
            ><strong>{{ one.rubric.name }}</strong>
            <span class="small second">
              {{ one.rubric.criteria.map((criterion) => criterion.title).join(' · ') }}</span
            ></span
          >
          <span class="small second"
            >{{ one.where }}<template v-if="one.items > 1">, {{ levels.item.counted(one.items) }}</template></span
          >
          <button
            type="button"
            class="word-button"
            :aria-label="`use ${one.rubric.name}`"
            @click="emit('taken', one.rubric)"
          >
            use
          </button>
        </li>
        <li v-if="!found.length" class="second">
          {{ answer.data.value.length ? 'No rubric matches.' : 'None of your courses has a rubric yet.' }}
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.pick {
  display: grid;
  gap: var(--space-3);
}
.list {
  max-height: 260px;
  overflow: auto;
}
.list li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: var(--space-5);
  padding: var(--space-3) 0;
}
</style>
