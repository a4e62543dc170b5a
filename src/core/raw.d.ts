/** A data table of the core, read as text by the build. */
declare module '*.csv?raw' {
  const text: string
  export default text
}
