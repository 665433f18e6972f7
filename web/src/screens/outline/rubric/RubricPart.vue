<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { keys } from '../../../foundation/keys'
import { useSend } from '../../../foundation/commands/useSend'
import { useAnswer } from '../../../foundation/useAnswer'
import { counted } from '../../../foundation/words'
import RubricTable from '../../../parts/marks/RubricTable.vue'
import { mostOf } from '../../../parts/marks/rubric'
import RubricEditor from './RubricEditor.vue'

/** The rubric of an item: whether there is one, what it says, changing it, and keeping a copy on one's shelf. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; canChange: boolean }>()
const answer = useAnswer(() => questions.rubric(props.edition, props.item.id))
const rubric = computed(() => answer.data.value?.rubric ?? null)
const isShown = ref(false)
const isWriting = ref(false)
const said = ref('')
const keep = useSend(
  (kept: Schemas['RubricForm'], key: string) =>
    ask(api.POST('/api/me/keep-rubric', { body: { rubric: kept }, params: { header: once(key) } })),
  [keys.ofEdition(props.edition, 'rubrics', '')],
)

async function keepIt(): Promise<void> {
  const answer = await keep.run(rubric.value!)
  said.value = answer?.sentence ?? keep.problem.value?.title ?? ''
}
</script>

<template>
  <section v-if="rubric || canChange" class="part" aria-label="Rubric">
    <p class="line">
      <template v-if="item.hasRubric">
        <span v-if="rubric"
          >It is marked by the rubric “{{ rubric.name }}”:
          {{ counted(rubric.criteria.length, 'criterion', 'criteria') }},
          {{ counted(mostOf(rubric), 'point', 'points') }}. Students see it before they hand in.</span
        >
        <span v-else role="status">{{ answer.problem.value?.title ?? 'Reading the rubric …' }}</span>
        <button v-if="rubric" type="button" class="word-button" :aria-expanded="isShown" @click="isShown = !isShown">
          {{ isShown ? 'hide it' : 'show it' }}
        </button>
        <button v-if="rubric && canChange" type="button" class="word-button" @click="isWriting = true">
          change it
        </button>
        <button v-if="rubric" type="button" class="word-button" :disabled="keep.busy.value" @click="keepIt">
          keep a copy on your shelf
        </button>
        <a v-if="rubric" :href="`/api/editions/${edition}/items/${item.id}/rubric.csv`" download>as a table (CSV)</a>
        <span class="small second" role="status">{{ said }}</span>
      </template>
      <template v-else>
        <span class="second">It has no rubric.</span>
        <button type="button" class="word-button" @click="isWriting = true">make one</button>
      </template>
    </p>
    <RubricEditor
      v-if="isWriting && answer.data.value"
      :edition="edition"
      :item="item"
      :before="answer.data.value"
      @close="isWriting = false"
    />
    <RubricTable v-else-if="isShown && rubric" :rubric="rubric" />
  </section>
</template>

<style scoped>
.part {
  display: grid;
  gap: var(--space-4);
}
</style>
