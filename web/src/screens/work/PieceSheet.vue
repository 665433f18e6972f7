<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { useLevels } from '../../foundation/levels'
import ProblemNote from '../../parts/ProblemNote.vue'
import { useGiveBack } from './useGiveBack'

/** One piece of work: what was handed in, and what goes back. */
const props = defineProps<{
  edition: number
  section: Schemas['WorkSection']
  piece: Schemas['WorkPiece']
  canGiveBack: boolean
}>()
const emit = defineEmits<{ given: [] }>()
const levels = useLevels()

const { text, again, busy, problem, sentence, give } = useGiveBack(
  props.edition,
  props.section.section,
  () => props.piece,
)

async function send(): Promise<void> {
  if (await give()) emit('given')
}
</script>

<template>
  <article aria-label="A piece of work">
    <h2>{{ piece.name }}</h2>
    <p class="second">
      {{ piece.code }} {{ piece.title }} · {{ section.name }} ·
      <template v-if="piece.work === null"
        >came {{ piece.handedInAt.words }}, after the {{ levels.item.one }} had closed</template
      >
      <template v-else>handed in {{ piece.handedInAt.words }}</template>
      <template v-if="piece.n > 1">, the {{ piece.n }}. time</template>
      <template v-if="piece.late">, {{ piece.late }}</template>
      <template v-if="piece.pressedAt"> (pressed {{ piece.pressedAt.words }})</template>
    </p>
    <p class="written">{{ piece.text }}</p>
    <p v-if="piece.work === null" class="second">
      It is kept as a draft. Open the {{ levels.item.one }} again for this student, and they can hand it in.
    </p>
    <blockquote v-else-if="piece.back">
      <p class="small">Given back {{ piece.back.at.words }}: {{ piece.back.again ? 'try again' : 'go on' }}</p>
      <p v-if="piece.back.text" class="written">{{ piece.back.text }}</p>
    </blockquote>
    <form v-else-if="canGiveBack" novalidate @submit.prevent="send">
      <label class="field-name" for="feedback">Feedback</label>
      <textarea id="feedback" v-model="text" rows="6" maxlength="20000"></textarea>
      <fieldset>
        <legend class="said-only">How it goes back</legend>
        <label><input v-model="again" type="radio" :value="false" /> go on</label>
        <label><input v-model="again" type="radio" :value="true" /> try again</label>
      </fieldset>
      <ProblemNote v-if="problem" :problem="problem" />
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="busy">Give back</v-btn>
        <span class="small" role="status">{{ sentence }} It cannot be taken back once it is read.</span>
      </p>
    </form>
    <p v-else class="second">From here it can be read, not given back.</p>
  </article>
</template>

<style scoped>
article {
  display: grid;
  gap: var(--space-5);
  align-content: start;
  max-width: 720px;
}
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
}
.written {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: var(--size-large);
}
blockquote {
  margin: 0;
  padding: var(--space-2) 0 var(--space-2) var(--space-6);
  border-left: var(--stroke-strong) solid var(--accent);
}
form {
  display: grid;
  gap: var(--space-4);
  border-top: var(--stroke-hair) solid var(--hair);
  padding-top: var(--space-5);
}
textarea {
  font: 400 var(--size-text) / 1.5 var(--face-text);
  color: var(--ink);
  background: var(--sheet);
  border: var(--stroke-hair) solid var(--line);
  border-radius: var(--radius-0);
  padding: var(--space-4) var(--space-5);
  resize: vertical;
}
fieldset {
  display: flex;
  gap: var(--space-7);
  border: 0;
  margin: 0;
  padding: 0;
}
fieldset input {
  accent-color: var(--ink);
  margin: 0 var(--space-2) 0 0;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
}
</style>
