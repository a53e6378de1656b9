import { useState } from 'react';
import { Link } from 'react-router';
import { Signal } from '../../ui/Signal.tsx';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { Empty, Loading } from '../../ui/states.tsx';
import { useWho } from '../../session/who.ts';
import { PhotoSource } from '../../bench/PhotoSource.tsx';
import { SimulatedCamera } from '../../camera/SimulatedCamera.tsx';
import { useBenchWorker, useOpenedPhoto } from '../../bench/useBench.ts';
import { photoRefusalWords } from '../../bench/words.ts';
import { MarkedBoard } from './MarkedBoard.tsx';

/** A director adds a kind of board: photograph it empty, mark two lines, look at what came of it, add it. */
export function NewBoardPage() {
  const { event, place } = useInEvent();
  const who = useWho();
  const [photo, setPhoto] = useState<Blob | null>(null);
  const bench = useBenchWorker();
  const opened = useOpenedPhoto(bench, photo);
  if (!place.may('add-board')) return <Empty title="Only the director adds kinds of board" />;
  const back = (
    <Link className="linklike inline-flex min-h-11 items-center" to={eventPath(event.eventId, 'boards')}>
      Back to the boards
    </Link>
  );
  if (photo && opened.kind === 'open') {
    return (
      <>
        {back}
        <MarkedBoard bench={bench} file={photo} photo={opened.photo} putAway={() => setPhoto(null)} />
      </>
    );
  }
  return (
    <div className="grid max-w-3xl gap-5">
      <div>
        {back}
        <h1>A new kind of board</h1>
      </div>
      <ol className="ruled border-base-300 border-y [&>li]:py-2">
        <li>Lay the empty board flat, in even light; no fish, no card, nobody’s shadow on it.</li>
        <li>
          Photograph it from straight above, stop at the left, so that it nearly fills the picture and the
          foot of the stop, the end, and both long edges of the ruled face are seen.
        </li>
        <li>Then mark two lines and enter their numbers. The rest is read from the picture.</li>
      </ol>
      {photo && opened.kind === 'opening' && <Loading what="Opening the photograph" />}
      {photo && opened.kind === 'refused' && (
        <div role="alert" className="grid gap-1">
          <Signal tone="fault">not a photograph that can be read</Signal>
          <p>{photoRefusalWords(opened.code)}</p>
        </div>
      )}
      <PhotoSource onPhoto={setPhoto} takeLabel="Photograph the board">
        {who.data?.isDemo && (
          <SimulatedCamera
            zone={event.zone}
            onPhoto={setPhoto}
            shoot={(camera, time, seed, signal, onProgress) =>
              camera.call('photographUnknownBoard', { ...time, seed }, signal, onProgress)
            }
          />
        )}
      </PhotoSource>
    </div>
  );
}
