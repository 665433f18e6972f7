<script setup lang="ts">
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import WordMark from '../../look/marks/WordMark.vue'
import ProblemNote from '../../parts/ProblemNote.vue'

/** The demo's mail server: it catches every letter, and shows it here. */
const answer = useAnswer(() => questions.demoMail(), { refetchInterval: 3000 })

/** A letter's text in pieces: what is an address of this school can be followed. */
const pieces = (text: string) =>
  text.split(/(https?:\/\/\S+)/).map((piece) => {
    const ours = piece.startsWith(`${location.origin}/`)
    return { piece, to: ours ? piece.slice(location.origin.length) : null }
  })
</script>

<template>
  <main class="page">
    <p class="cover">
      <router-link :to="{ name: 'sign-in' }" aria-label="Polycline: to the sign-in page"><WordMark /></router-link>
    </p>
    <h1>Caught mail</h1>
    <p class="second">Nothing leaves the demo: its letters end up here, the newest first.</p>
    <ProblemNote v-if="answer.problem.value" :problem="answer.problem.value" :again="answer.refetch" />
    <p v-else-if="!answer.data.value" class="second" role="status">Reading …</p>
    <p v-else-if="answer.data.value.letters.length === 0" class="none">
      No letter yet. Add people as the school office, and theirs will arrive within seconds.
    </p>
    <ol v-else class="ruled" aria-label="Letters">
      <li v-for="(letter, at) in answer.data.value.letters" :key="`${letter.to} ${letter.at.instant} ${at}`">
        <p class="head">
          <b>{{ letter.subject }}</b> <span class="second">to {{ letter.to }}</span>
          <span class="second when">{{ letter.at.words }}</span>
        </p>
        <p class="text">
          <template v-for="(one, n) in pieces(letter.text)" :key="n"
            ><router-link v-if="one.to" :to="one.to">{{ one.piece }}</router-link
            ><template v-else>{{ one.piece }}</template></template
          >
        </p>
      </li>
    </ol>
  </main>
</template>

<style scoped>
.page {
  height: 100dvh;
  overflow: auto;
  padding: var(--space-7) var(--space-8);
}
.cover a {
  text-decoration: none;
}
.cover {
  padding-bottom: var(--space-7);
}
h1 {
  font: 600 var(--size-title) / 1.2 var(--face-display);
  padding-bottom: var(--space-3);
}
.none {
  padding: var(--space-7) 0;
}
ol {
  max-width: 860px;
  padding-top: var(--space-6);
  list-style: none;
}
li {
  padding: var(--space-5) 0;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
}
b {
  font-weight: 600;
}
.when {
  margin-left: auto;
}
.text {
  padding-top: var(--space-3);
  overflow-wrap: anywhere;
  white-space: pre-line;
}
</style>
