/** Whether the screen stays on while a sheet is worked through, and why not. */
export class Awake {
  state = $state<'on' | 'off' | 'insecure' | 'unable'>('off');
  #lock: { release(): Promise<void> } | undefined;

  /** Keeps the screen on from now; the browser lets it go whenever the page is hidden, so it is asked for again when it is seen. */
  start(): () => void {
    const again = () => {
      if (document.visibilityState === 'visible') void this.#ask();
    };
    document.addEventListener('visibilitychange', again);
    void this.#ask();
    return () => {
      document.removeEventListener('visibilitychange', again);
      void this.#lock?.release().catch(() => {});
      this.#lock = undefined;
      this.state = 'off';
    };
  }

  async #ask(): Promise<void> {
    const { wakeLock } = navigator as Navigator & { wakeLock?: WakeLock };
    if (!wakeLock) {
      this.state = globalThis.isSecureContext ? 'unable' : 'insecure';
      return;
    }
    try {
      this.#lock = await wakeLock.request('screen');
      this.state = 'on';
    } catch {
      // A battery that runs low, or a page that is not seen: the browser says no.
      this.state = 'unable';
    }
  }
}
