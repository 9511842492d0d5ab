/** While renders go on: the screen stays awake, and where they would be lost the browser asks before the page is left. */

let on = false;
let lock: WakeLockSentinel | undefined;

const onLeave = (event: BeforeUnloadEvent) => event.preventDefault();

/** The browser lets go of the lock whenever the page is out of sight; it is asked for again when it is back. */
async function keepAwake(): Promise<void> {
  if (!on || document.visibilityState !== 'visible' || lock?.released === false) return;
  // It may say no, on low battery for instance; the render goes on all the same.
  lock = await navigator.wakeLock?.request('screen').catch(() => undefined);
  if (!on) void lock?.release();
}

/** Whether the browser keeps what is unfinished, so that it goes on in another visit. */
const keeps = () => navigator.storage?.getDirectory !== undefined;

/** Says whether any render waits or runs. */
export function whileRendering(now: boolean): void {
  if (now === on) return;
  on = now;
  if (on) {
    if (!keeps()) window.addEventListener('beforeunload', onLeave);
    document.addEventListener('visibilitychange', keepAwake);
    void keepAwake();
  } else {
    window.removeEventListener('beforeunload', onLeave);
    document.removeEventListener('visibilitychange', keepAwake);
    void lock?.release();
    lock = undefined;
  }
}
