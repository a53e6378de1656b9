import type { CareChoices } from './careChoices.ts';

let audio: AudioContext | null = null;

/** A short tone, a buzz and words, each only where it is on and the device has it; what it lacks is passed over. */
export function giveHint(
  hints: CareChoices['hints'],
  { beeps, words }: { beeps: number; words: string },
): void {
  if (hints.tone && beeps > 0 && 'AudioContext' in window) beep(beeps);
  if (hints.vibration && beeps > 0 && 'vibrate' in navigator)
    navigator.vibrate(Array.from({ length: 2 * beeps - 1 }, () => 120));
  if (hints.speech && words && 'speechSynthesis' in window) {
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(words));
  }
}

/** A short tick that rises with what is met, 0 to 1: it guides a hand whose eyes are elsewhere. */
export function tick(share: number): void {
  if (!('AudioContext' in window)) return;
  sound(TICK_HERTZ[0] + share * (TICK_HERTZ[1] - TICK_HERTZ[0]), 0.04, 0, 0.15);
}

const TICK_HERTZ = [300, 1200] as const;
const BEEP_HERTZ = 880;
const BEEP_SECONDS = 0.12;

function beep(times: number): void {
  for (let i = 0; i < times; i++) sound(BEEP_HERTZ, BEEP_SECONDS, i * 2 * BEEP_SECONDS, 0.3);
}

function sound(hertz: number, seconds: number, afterSeconds: number, volume: number): void {
  audio ??= new AudioContext();
  const tone = audio.createOscillator();
  const gain = audio.createGain();
  tone.frequency.value = hertz;
  gain.gain.value = volume;
  tone.connect(gain).connect(audio.destination);
  const at = audio.currentTime + afterSeconds;
  tone.start(at);
  tone.stop(at + seconds);
}
