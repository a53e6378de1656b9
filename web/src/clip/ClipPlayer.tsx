import { useObjectUrl } from '../ui/useObjectUrl.ts';

/** Shows a clip that is on this device. */
export function ClipPlayer({ clip }: { clip: Blob }) {
  const src = useObjectUrl(clip);
  return (
    <figure className="flex items-center gap-3">
      <div className="w-36 flex-none">{src && <ClipVideo src={src} />}</div>
      <figcaption className="text-quiet">
        Clip of the release, <span className="num">{(clip.size / 1024 / 1024).toFixed(1)} MB</span>
      </figcaption>
    </figure>
  );
}

/** A film without sound, played when asked. */
export function ClipVideo({ src }: { src: string }) {
  return (
    <video
      src={src}
      controls
      muted
      playsInline
      preload="metadata"
      aria-label="Clip of the release"
      className="border-base-300 max-h-64 w-full border bg-black"
    />
  );
}
