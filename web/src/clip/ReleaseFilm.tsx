import { useEffect, useRef, useState } from 'react';
import { CLIP_LIMITS } from '@lauta/contract';
import { Signal } from '../ui/Signal.tsx';
import type { FilmWish } from '../camera/filmProtocol.ts';
import { useLiveSource } from '../camera/useLiveSource.ts';
import { recallCameraChoices } from '../camera/cameraChoices.ts';
import { CAMERA_TROUBLE_WORDS } from '../camera/words.ts';
import { ClipPlayer } from './ClipPlayer.tsx';
import { clipType, filmClip } from './filmClip.ts';

/** Films a release while the clock and its taps stay where they are; the clip waits on the device for the claim. */
export function ReleaseFilm({
  wish,
  canBegin,
  clip,
  onClip,
}: {
  /** What a simulated camera films; null for the device's own. */
  wish: () => FilmWish | null;
  /** The fish is still here. */
  canBegin: boolean;
  clip: Blob | null;
  onClip: (clip: Blob) => void;
}) {
  /** What is filmed, as long as it is; the same for the whole film. */
  const [filmed, setFilmed] = useState<{ film: FilmWish | null } | null>(null);
  const [hasFailed, setFailed] = useState(false);
  const [type] = useState(clipType);
  if (filmed && type) {
    return (
      <Filming
        film={filmed.film}
        type={type}
        onEnd={(made) => {
          setFilmed(null);
          setFailed(made === null);
          if (made) onClip(made);
        }}
      />
    );
  }
  if (!clip && !(canBegin && type)) return null;
  return (
    // Idle it stays out of the way of what comes first: the reading and the claim.
    <section aria-label="Clip of the release" className="order-last grid max-w-xl gap-2 max-lg:mb-24">
      {hasFailed && (
        <p role="status">
          <Signal tone="look">no clip was filmed</Signal> A film of the phone’s own camera can be added to the
          catch later.
        </p>
      )}
      {clip && <ClipPlayer clip={clip} />}
      {canBegin && type && (
        <button type="button" className="btn h-16" onClick={() => setFilmed({ film: wish() })}>
          {clip ? 'Film the release again' : `Film the release, ${CLIP_LIMITS.maxSeconds} s`}
        </button>
      )}
    </section>
  );
}

function Filming({
  film,
  type,
  onEnd,
}: {
  film: FilmWish | null;
  type: string;
  onEnd: (clip: Blob | null) => void;
}) {
  const state = useLiveSource(film, film ? null : recallCameraChoices().lensId);
  const source = state.kind === 'open' ? state.source : null;
  const video = useRef<HTMLVideoElement>(null);
  const stopping = useRef<AbortController | null>(null);
  const [seconds, setSeconds] = useState(0);
  const end = useRef(onEnd);
  useEffect(() => {
    end.current = onEnd;
  });
  useEffect(() => {
    if (!source) return;
    const { stream } = source;
    if (video.current) video.current.srcObject = stream;
    source.stage?.('fish');
    const abort = new AbortController();
    stopping.current = abort;
    void filmClip(stream, type, abort.signal, setSeconds)
      .catch(() => null)
      .then((clip) => end.current(clip));
    // A page that is left in mid-film keeps what there is of it.
    return () => abort.abort();
  }, [source, type]);
  if (state.kind === 'failed') {
    return (
      <div role="alert" className="border-error grid gap-2 border-l-4 pl-3">
        <p>{CAMERA_TROUBLE_WORDS[state.trouble]}</p>
        <button type="button" className="btn h-16" onClick={() => onEnd(null)}>
          Without a clip
        </button>
      </div>
    );
  }
  return (
    <section aria-label="Clip of the release" className="grid gap-2">
      <video ref={video} autoPlay muted playsInline className="max-h-48 w-full bg-black object-contain" />
      <div className="flex items-center justify-between gap-3">
        <p role="status">
          <Signal tone="look">
            {source ? `filming, ${seconds} of ${CLIP_LIMITS.maxSeconds} s` : 'opening the camera'}
          </Signal>
        </p>
        <button
          type="button"
          className="btn h-16"
          onClick={() => (stopping.current ? stopping.current.abort() : onEnd(null))}
        >
          Stop filming
        </button>
      </div>
    </section>
  );
}
