/** The screen stays on while it is danced, where the browser lets it; it lets go by itself when the page is left. */
export function stayAwake(): void {
  void navigator.wakeLock?.request('screen').catch(() => undefined)
}
