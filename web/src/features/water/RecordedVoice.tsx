import { useEffect, useRef, useState } from 'react';
import { followEar, recordedEar } from '../../camera/spokenCommands.ts';

/** What the demo's recorded voice says, from hook-up to release. */
const RECORDING = ['fish on', 'in the net', 'lift', 'photograph', 'back in the water', 'released'].map(
  (words, i) => ({ afterMs: 500 + 2500 * i, words }),
);
const ENDS_MS = (RECORDING.at(-1)?.afterMs ?? 0) + 500;

/** The demo's stand-in for a voice: no recogniser that works on the device ships in a well-kept package. */
export function RecordedVoice() {
  const [isPlaying, setPlaying] = useState(false);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  const turn = (): void => {
    stop.current();
    stop.current = () => undefined;
    setPlaying(!isPlaying);
    if (isPlaying) return;
    const silence = followEar(recordedEar(RECORDING));
    const end = setTimeout(() => setPlaying(false), ENDS_MS);
    stop.current = () => {
      silence();
      clearTimeout(end);
    };
  };
  return (
    <button type="button" className="btn h-16 text-base" aria-pressed={isPlaying} onClick={turn}>
      {isPlaying ? 'Stop the recorded voice' : 'Recorded voice'}
    </button>
  );
}
