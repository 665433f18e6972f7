// What a test project's report (CTRF) says: "passed failed" on the first line, then every failure with its message.
import { readFileSync } from 'node:fs'

const { results } = JSON.parse(readFileSync(process.argv[2], 'utf8'))
const failures = results.tests.filter((test) => test.status === 'failed' || test.status === 'other')
console.log(results.summary.passed, failures.length)
for (const test of failures) {
  console.log(test.name)
  for (const line of `${test.message ?? ''}\n${test.trace ?? ''}`.split('\n').slice(0, 40))
    if (line.trim()) console.log(`  ${line}`)
}
