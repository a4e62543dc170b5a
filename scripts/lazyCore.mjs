/**
 * Nothing in the core does anything when it is loaded (docs/architecture.md), so what a bundle does
 * not use of it can go: each constant is made by a call that the bundler is told has no effect.
 */
export const lazyCore = () => ({
  name: 'lazy-core',
  enforce: 'post',
  transform(code, id) {
    if (!/\/src\/core\/.*\.ts$/.test(id)) return undefined
    const constants = this.parse(code).body.flatMap((statement) => {
      const declared =
        statement.type === 'ExportNamedDeclaration' ? statement.declaration : statement
      return declared?.type === 'VariableDeclaration' && declared.kind === 'const'
        ? declared.declarations.flatMap(({ init }) =>
            init && WORKED_OUT.has(init.type) ? [init] : [],
          )
        : []
    })
    let made = code
    for (const { start, end } of constants.toReversed())
      made = `${made.slice(0, start)}/* @__PURE__ */ (() => (${made.slice(start, end)}))()${made.slice(end)}`
    return { code: made, map: null }
  },
})

/** Initial values that something has to be worked out for. */
const WORKED_OUT = new Set([
  'CallExpression',
  'NewExpression',
  'MemberExpression',
  'ObjectExpression',
  'ArrayExpression',
  'TSAsExpression',
])
