import { readPreferences } from '../../storage/preferences';

/** Whether this browser can say something outside its page. */
export const canNotify = (): boolean => typeof Notification !== 'undefined';

/** Asks the user whether the browser may. @returns whether it may */
export async function askToNotify(): Promise<boolean> {
  return (await Notification.requestPermission()) === 'granted';
}

/** Says that something is over to a user who looks at something else, if that was asked for and is allowed. */
export async function notify(text: string): Promise<void> {
  if (!canNotify() || Notification.permission !== 'granted' || document.visibilityState === 'visible') return;
  if (!(await readPreferences()).notices) return;
  const registration = await navigator.serviceWorker?.getRegistration();
  const options = { body: text, icon: '/icons/kite-192.png', tag: 'render' };
  // On phones only a service worker may.
  if (registration?.active) return registration.showNotification('Fresh Reel', options);
  const notice = new Notification('Fresh Reel', options);
  notice.onclick = () => window.focus();
}
