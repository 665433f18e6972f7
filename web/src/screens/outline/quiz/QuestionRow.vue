<script setup lang="ts">
import { computed } from 'vue'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import NumberField from '../../../parts/fields/NumberField.vue'
import OneOfField from '../../../parts/fields/OneOfField.vue'
import TickField from '../../../parts/fields/TickField.vue'
import WordField from '../../../parts/fields/WordField.vue'
import { useText } from '../text/useText'
import WritingField from '../text/field/WritingField.vue'
import AnswerRows from './AnswerRows.vue'
import { FAULTY, KINDS, type QuestionForm, turnInto } from './rows'

/** One question being written, field by field. */
const props = defineProps<{ place: number; fault: string }>()
const question = defineModel<QuestionForm>({ required: true })
const emit = defineEmits<{ busy: [isBusy: boolean] }>()

const name = computed(() => `question ${props.place}`)
const text = useText(
  question.value.html,
  () => (question.value.html = text.editor.value?.getHTML() ?? ''),
  `What question ${props.place} asks`,
)
const canBePartly = computed(() => /^(many|order|match|gaps)$/.test(question.value.kind))
const hasAnswers = computed(() => /^(one|many|order|match)$/.test(question.value.kind))
</script>

<template>
  <div class="question">
    <WritingField :text="text" @busy="emit('busy', $event)" />
    <p class="line">
      <span>Answered by</span>
      <ChoiceField
        :model-value="question.kind"
        :label="`How ${name} is answered`"
        :choices="KINDS"
        @update:model-value="turnInto(question, $event)"
      />
      <span>for</span>
      <NumberField
        class="few"
        :model-value="question.points"
        :label="`Points for ${name}`"
        :min="0.01"
        :max="10000"
        :decimals="2"
        @update:model-value="question.points = $event ?? 1"
      />
      <span>{{ question.points === 1 ? 'point' : 'points' }}</span>
      <TickField v-model="question.isExtra" label="a bonus" />
      <ChoiceField
        :model-value="question.faulty ?? ''"
        :label="`What becomes of ${name}`"
        :choices="FAULTY"
        @update:model-value="question.faulty = $event"
      />
    </p>
    <p v-if="question.kind === 'gaps'" class="small second">
      Write each gap in brackets: [cumulus / Cu] takes either form, [+low / -high] is a choice, [number: 8 oktas] a
      number.
    </p>
    <AnswerRows v-else-if="hasAnswers" v-model="question" :name="name" />
    <OneOfField
      v-else-if="question.kind === 'truth'"
      v-model="question.right"
      :label="`The right answer to ${name}`"
      :choices="[
        { value: 'true', title: 'true' },
        { value: 'false', title: 'false' },
      ]"
    />
    <p v-else-if="question.kind === 'number'" class="line">
      <span>Right is</span>
      <WordField
        v-model="question.right"
        class="wide"
        :label="`The number that answers ${name}`"
        placeholder="1013.25 ± 0.5 hPa, mbar; 3 figures; 50 % with the wrong unit or figures"
        :maxlength="1000"
      />
    </p>
    <template v-else-if="question.kind === 'text'">
      <p class="line">
        <span>Right is</span>
        <WordField
          v-model="question.right"
          class="wide"
          :label="`What answers ${name}`"
          placeholder="cumulonimbus / Cb"
          :maxlength="1000"
        />
        <span>but not</span>
        <WordField
          v-model="question.wrong"
          class="wide"
          :label="`What does not answer ${name}, however near`"
          placeholder="nothing in particular"
          :maxlength="1000"
        />
      </p>
      <p class="line">
        <span>Slips to overlook in longer words:</span>
        <NumberField
          :model-value="question.slips"
          :label="`Slips to overlook in ${name}`"
          :max="3"
          @update:model-value="question.slips = $event ?? 0"
        />
        <TickField v-model="question.capitalsCount" label="capitals count" />
        <TickField v-model="question.accentsCount" label="accents count" />
      </p>
    </template>
    <p v-if="canBePartly || hasAnswers" class="line">
      <TickField v-if="canBePartly" v-model="question.allOrNothing" label="all or nothing" />
      <TickField
        v-if="question.kind === 'one' || question.kind === 'many'"
        v-model="question.inThisOrder"
        label="always in this order"
      />
    </p>
    <p class="said">
      <label class="small" :for="`hint-${place}`">Hint</label>
      <v-text-field :id="`hint-${place}`" v-model="question.hint" maxlength="1000" placeholder="none" />
      <label class="small" :for="`after-${place}`">Said afterwards</label>
      <v-text-field :id="`after-${place}`" v-model="question.after" maxlength="1000" placeholder="nothing" />
    </p>
    <p class="line">
      <TickField v-model="question.beginsPage" label="a new page begins here" />
      <TickField
        :model-value="question.draw > 0"
        label="draw only some of the questions from here on"
        @update:model-value="((question.draw = $event ? 1 : 0), (question.drawOf = $event ? 2 : 0))"
      />
      <template v-if="question.draw > 0">
        <span>:</span>
        <NumberField
          :model-value="question.draw"
          :label="`How many are drawn from ${name} on`"
          :min="1"
          :max="100"
          @update:model-value="question.draw = $event ?? 1"
        />
        <span>of</span>
        <NumberField
          :model-value="question.drawOf"
          :label="`From how many, ${name} among them`"
          :min="1"
          :max="100"
          @update:model-value="question.drawOf = $event ?? 2"
        />
      </template>
    </p>
    <p v-if="fault" class="small accent" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.question {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-4);
  padding: var(--space-4) 0 var(--space-5);
}
.question :deep(.page [contenteditable]) {
  min-height: 56px;
}
.wide {
  flex: 0 1 320px;
}
.few {
  flex: 0 0 72px;
}
.said {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto minmax(0, 1fr);
  align-items: baseline;
  gap: var(--space-4);
}
.said :deep(.v-input) {
  max-width: none;
  width: 100%;
}
@media (max-width: 700px) {
  .said {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
