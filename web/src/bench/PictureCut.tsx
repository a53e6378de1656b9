import type { Point } from '@lauta/vision';
import type { Size } from './view.ts';

/** A part of a photograph about a point, enlarged; whatever is around it hides the rest. */
export function PictureCut({
  src,
  size,
  point,
  scale,
  shown,
  alt,
}: {
  src: string;
  /** The photograph's own, px. */
  size: Size;
  /** What comes to lie in the middle, px of the photograph. */
  point: Point;
  scale: number;
  /** Of the part on the screen, px. */
  shown: Size;
  alt: string;
}) {
  const across = shown.width / 2 - point[0] * scale;
  const down = shown.height / 2 - point[1] * scale;
  return (
    <img
      src={src}
      alt={alt}
      className="absolute top-0 left-0 max-w-none origin-top-left"
      style={{
        width: size.width,
        height: size.height,
        transform: `translate(${across}px, ${down}px) scale(${scale})`,
      }}
    />
  );
}
