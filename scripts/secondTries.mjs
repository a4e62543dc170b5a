/** Names what passed only when it was tried again: a test to mend, or a machine too busy. */
// biome-ignore lint/style/noDefaultExport: a reporter is found so
export default class SecondTries {
  #again = []

  onTestCaseResult(test) {
    if (test.diagnostic()?.flaky) this.#again.push(test)
  }

  onTestRunEnd() {
    for (const test of this.#again) {
      console.log(`   passed at the second try: ${test.fullName}`)
      for (const { message } of test.result().errors ?? []) console.log(`      ${message}`)
    }
  }
}
