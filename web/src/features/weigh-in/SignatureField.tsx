import SignaturePad from 'signature_pad';
import { useEffect, useRef, useState } from 'react';
import type { Signature } from '@lauta/core/weigh-in';

/** A name is drawn with a finger, or typed by whom that does not serve. */
export function SignatureField({
  label,
  onSigned,
}: {
  label: string;
  onSigned: (signature: Signature) => void;
}) {
  const canvas = useRef<HTMLCanvasElement | null>(null);
  const pad = useRef<SignaturePad | null>(null);
  const [isDrawn, setDrawn] = useState(false);
  const [name, setName] = useState('');
  useEffect(() => {
    const surface = canvas.current;
    if (!surface) return;
    // As many points as the screen has, or lines are drawn blurred and beside the finger.
    const { width, height } = surface.getBoundingClientRect();
    const ratio = window.devicePixelRatio;
    surface.width = Math.round(width * ratio);
    surface.height = Math.round(height * ratio);
    surface.getContext('2d')?.scale(ratio, ratio);
    const ink = getComputedStyle(surface).color;
    const made = new SignaturePad(surface, { penColor: ink, minWidth: 1, maxWidth: 2.5 });
    made.addEventListener('endStroke', () => setDrawn(true));
    pad.current = made;
    return () => made.off();
  }, []);
  const sign = (): void => {
    const surface = canvas.current;
    if (name.trim() !== '') {
      onSigned({ kind: 'typed', name: name.trim() });
      return;
    }
    if (!pad.current || !surface) return;
    const { width, height } = surface.getBoundingClientRect();
    onSigned({ kind: 'drawn', strokes: strokesOf(pad.current.toData(), width, height) });
  };
  return (
    <div className="grid gap-2" role="group" aria-label={label}>
      <p className="font-semibold">{label}</p>
      <canvas
        ref={canvas}
        role="img"
        aria-label="Field to draw the name in"
        className="border-base-content h-32 w-full touch-none border-b-2 bg-transparent"
      />
      <div className="grid grid-cols-[1fr_auto_auto] gap-2">
        <input
          className="input h-16 w-full"
          aria-label="or type the name"
          placeholder="or type the name"
          maxLength={80}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <button
          type="button"
          className="btn h-16"
          onClick={() => {
            pad.current?.clear();
            setDrawn(false);
            setName('');
          }}
        >
          Clear
        </button>
        <button
          type="button"
          className="btn btn-primary h-16"
          disabled={!isDrawn && name.trim() === ''}
          onClick={sign}
        >
          Sign
        </button>
      </div>
    </div>
  );
}

/** A line every few points is as good as all of them, and bounded. */
const MOST_POINTS = 120;

/** Lines of a field one wide and one high. */
export function strokesOf(
  groups: readonly { points: readonly { x: number; y: number }[] }[],
  width: number,
  height: number,
): number[][] {
  const round = (share: number): number => Math.round(1000 * Math.min(1.1, Math.max(-0.1, share))) / 1000;
  return groups
    .filter(({ points }) => points.length > 0)
    .slice(0, 60)
    .map(({ points }) => {
      const every = Math.ceil(points.length / MOST_POINTS);
      const kept = points.filter((_, i) => i % every === 0 || i === points.length - 1);
      // A dot is a line of no length.
      const line = kept.length === 1 ? [...kept, ...kept] : kept;
      return line.flatMap(({ x, y }) => [round(x / width), round(y / height)]);
    });
}
