<script setup lang="ts">
import { computed } from 'vue'
import { counted } from '../../../foundation/words'
import PageHead from '../../../parts/shell/PageHead.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import { levelNames, plainLevels } from '../../../foundation/levels'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import LevelNameFields from '../../../parts/fields/LevelNameFields.vue'
import WordField from '../../../parts/fields/WordField.vue'
import UnderstoodLines from './UnderstoodLines.vue'
import { useNewCourse } from './useNewCourse'

/** A course, from a scheme of work: written or pasted at the left, understood line by line at the right. */
const { places, terms, title, subject, term, basis, levels, scheme, shown, make, say, busy, problem, ready } =
  useNewCourse()

const open = computed(() => (shown.value?.lines ?? []).filter((line) => line.asks || line.wrong).length)
const EXAMPLE = `Reading the sky
  What clouds tell   2 classes
    read  Ten kinds of cloud
    task  Cloud diary   due 2nd class after
  Fronts
    quiz  Warm or cold?  for marks, a week`
</script>

<template>
  <div class="page">
    <PageHead />
    <main>
      <div class="title">
        <h1>New course</h1>
        <p class="line">
          <span>It is called</span>
          <WordField v-model="title" class="name" label="Title of the course" autofocus />
          <span>subject</span>
          <WordField v-model="subject" class="subject" label="Subject" placeholder="not said" :maxlength="120" />
          <span>for</span>
          <ChoiceField
            v-model="term"
            label="Its first term"
            placeholder="choose a term"
            :choices="terms.map((one) => ({ value: one.term, title: one.name, note: one.dates }))"
          />
          <span>counted in</span>
          <ChoiceField
            v-model="basis"
            label="What its lessons are measured in"
            :choices="[
              { value: 'meetings', title: 'classes' },
              { value: 'minutes', title: 'minutes' },
            ]"
          />
          <button v-if="levels === null" type="button" class="word-button" @click="levels = levelNames(plainLevels)">
            call its levels something else
          </button>
        </p>
        <p v-if="levels" class="line">
          <span>Its levels are called</span>
          <LevelNameFields v-model="levels" />
          <button type="button" class="word-button" @click="levels = null">back to unit, lesson, item</button>
        </p>
      </div>
      <div class="two">
        <section>
          <label class="field-name" for="scheme"
            >Paste your scheme of work, or type it. Indent for lessons and what is in them; rows from a spreadsheet work
            too.</label
          >
          <v-textarea
            id="scheme"
            v-model="scheme"
            class="scheme"
            rows="20"
            no-resize
            spellcheck="false"
            :placeholder="EXAMPLE"
          />
        </section>
        <section class="right" tabindex="0" aria-label="What is understood" aria-live="polite">
          <p v-if="places.data.value && terms.length === 0" class="second">
            There is no term ahead yet. The school office adds one.
          </p>
          <UnderstoodLines v-else-if="shown" :answer="shown" @say="say" />
          <p v-else class="second">
            What is understood of each line appears here. Or begin empty, and add units and lessons in the outline.
          </p>
        </section>
      </div>
      <form class="foot" novalidate @submit.prevent="make(false)">
        <ProblemNote v-if="problem" :problem="problem" />
        <p class="line">
          <v-btn v-if="shown" type="submit" class="meant" :disabled="busy || !ready">
            {{ busy ? 'Making the course …' : `Make the course: ${shown.sentence}, unpublished` }}
          </v-btn>
          <v-btn :class="{ meant: !shown }" :disabled="busy || !ready" @click="make(true)">
            {{ shown ? 'Begin empty instead' : 'Make the course, empty' }}
          </v-btn>
          <span class="small" role="status">{{
            !ready && places.data.value && terms.length
              ? 'It needs a title.'
              : open
                ? `${counted(open, 'thing')} to look at, or leave ${open === 1 ? 'it' : 'them'}: ${open === 1 ? 'it comes' : 'they come'} along as ${open === 1 ? 'it is' : 'they are'}.`
                : 'You will lead it. Nobody else sees it yet.'
          }}</span>
        </p>
      </form>
    </main>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100dvh;
  padding: 0 var(--space-8);
  overflow: clip;
}
main {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
}
.title {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-7);
  border-top: var(--stroke-hair) solid var(--ink);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding: var(--space-5) 0;
}
h1 {
  font: 600 var(--size-title) / 1.2 var(--face-display);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-5);
}
.name {
  flex: 0 0 200px;
}
.subject {
  flex: 0 0 130px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
  min-height: 0;
}
.two > section {
  min-height: 0;
  overflow: auto;
  padding: var(--space-5) var(--space-7) var(--space-7) 0;
}
.two > .right {
  border-left: var(--stroke-hair) solid var(--hair);
  padding: var(--space-5) 0 var(--space-7) var(--space-7);
}
.scheme :deep(textarea) {
  font-size: var(--size-text);
  line-height: 1.6;
  white-space: pre;
  overflow-x: auto;
  tab-size: 4;
}
.foot {
  display: grid;
  gap: var(--space-4);
  background: var(--sheet);
  border-top: var(--stroke-strong) solid var(--ink);
  padding: var(--space-5) var(--space-7);
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: 1fr;
    overflow: auto;
  }
}
</style>
