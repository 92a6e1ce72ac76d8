import { useSyncExternalStore } from 'react';

/** Whether this browser tells with a sound, and a notification where it may, that a device is done. */
const KEY = 'yarrowmark.chime';
const listeners = new Set<() => void>();

export function chimeWanted(): boolean {
  return localStorage.getItem(KEY) === 'yes';
}

/** Asks for notifications as well: a browser allows that only where somebody has just pressed something. */
export function wantChime(wanted: boolean): void {
  localStorage.setItem(KEY, wanted ? 'yes' : 'no');
  listeners.forEach((listener) => listener());
  if (!wanted) return;
  sound();
  if (typeof Notification !== 'undefined' && Notification.permission === 'default')
    void Notification.requestPermission();
}

export function useChime(): boolean {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, chimeWanted);
}

/** Says that something is done, if that is wanted. */
export function chime(words: string): void {
  if (!chimeWanted()) return;
  sound();
  if (typeof Notification !== 'undefined' && Notification.permission === 'granted' && document.hidden)
    new Notification('Yarrowmark', { body: words });
}

/** Two short tones, made here: no file is fetched for it. A browser without sound stays silent. */
function sound(): void {
  if (typeof AudioContext === 'undefined') return;
  try {
    const audio = new AudioContext();
    [660, 880].forEach((hz, i) => {
      const [from, to] = [audio.currentTime + 0.18 * i, audio.currentTime + 0.18 * (i + 1)];
      const tone = audio.createOscillator();
      const volume = audio.createGain();
      tone.frequency.value = hz;
      volume.gain.setValueAtTime(0.12, from);
      volume.gain.exponentialRampToValueAtTime(0.001, to);
      tone.connect(volume).connect(audio.destination);
      tone.start(from);
      tone.stop(to);
    });
    setTimeout(() => void audio.close(), 1_000);
  } catch {
    // No sound device: the words on the screen remain.
  }
}
