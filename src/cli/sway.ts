import { commandLine } from './commandLine'

process.exitCode = commandLine(process.argv.slice(2), {
  print: (text) => process.stdout.write(text),
  say: (text) => process.stderr.write(text),
})
