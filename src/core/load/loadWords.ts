import type { CountLoad } from './load'

/** `load 4.2 of 7: hips 3.0, feet 1.2 x 0.5, together 0.3` */
export function loadWords(
  { total, parts, starts, turning, down, partner = 0 }: CountLoad,
  limit: number,
): string {
  const said = [
    ...parts.map(
      ({ layer, own, share }) => `${layer} ${own.toFixed(1)}${share < 1 ? ` × ${share}` : ''}`,
    ),
    ...(starts > 0 ? [`beginning together ${starts.toFixed(1)}`] : []),
    ...(down > 0 ? [`staying down ${down.toFixed(1)}`] : []),
    ...(partner > 0 ? [`with a partner ${partner.toFixed(1)}`] : []),
    ...(turning > 0 ? [`turning ${turning.toFixed(1)}`] : []),
  ]
  return `load ${total.toFixed(1)} of ${limit}${said.length > 0 ? `: ${said.join(', ')}` : ''}`
}
