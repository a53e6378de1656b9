import type { CareChoices } from './choices.ts';

let audio: AudioContext | null = null;

/** A short tone, a buzz and words, each only where it is on and the device has it; what it lacks is passed over. */
export function giveHint(
  hints: CareChoices['hints'],
  { beeps, words }: { beeps: number; words: string },
): void {
  if (hints.tone && beeps > 0 && 'AudioContext' in window) beep(beeps);
  if (hints.vibration && beeps > 0 && 'vibrate' in navigator)
    navigator.vibrate(Array.from({ length: 2 * beeps - 1 }, () => 120));
  if (hints.speech && 'speechSynthesis' in window) {
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(words));
  }
}

const BEEP_HERTZ = 880;
const BEEP_SECONDS = 0.12;

function beep(times: number): void {
  audio ??= new AudioContext();
  for (let i = 0; i < times; i++) {
    const tone = audio.createOscillator();
    const gain = audio.createGain();
    tone.frequency.value = BEEP_HERTZ;
    gain.gain.value = 0.3;
    tone.connect(gain).connect(audio.destination);
    const at = audio.currentTime + i * 2 * BEEP_SECONDS;
    tone.start(at);
    tone.stop(at + BEEP_SECONDS);
  }
}
