/** A text as markup has it: nothing in it begins or ends anything. */
export const escaped = (text: string): string =>
  text.replace(/[<>&"']/g, (sign) => `&#${sign.charCodeAt(0)};`)
