/** Lower case, without accents, hyphens and apostrophes, so that `ʻuwehe` is found as uwehe. */
export const folded = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f'’ʻʼ]/g, '')
    .replace(/[-/·]/g, ' ')
    .trim()
