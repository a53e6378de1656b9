import { useRef, type ReactNode } from 'react';
import { FileInput } from '../ui/FileInput.tsx';

/** Takes a photograph with the phone's own camera, or a file that is there already. */
export function PhotoSource({
  onPhoto,
  takeLabel = 'Photograph a fish',
  isDocked = true,
  onCamera,
  onTape,
  children,
}: {
  onPhoto: (photo: Blob) => void;
  takeLabel?: string;
  /** Whether it lies at the screen's lower edge, under the thumb. */
  isDocked?: boolean;
  /** Opens the live view; without it there is none here. */
  onCamera?: () => void;
  /** Measures with a tape instead. */
  onTape?: () => void;
  children?: ReactNode;
}) {
  const camera = useRef<HTMLInputElement>(null);
  const file = useRef<HTMLInputElement>(null);
  return (
    <div
      className={`grid grid-cols-2 gap-2 lg:grid-cols-3 ${isDocked ? 'bg-base-100 border-base-300 max-lg:sticky max-lg:bottom-16 max-lg:z-10 max-lg:-mx-4 max-lg:border-t max-lg:px-4 max-lg:py-3' : ''}`}
    >
      {/* On the phone it lies lowest, under the thumb. */}
      <button
        type="button"
        className={
          isDocked
            ? 'btn main-action btn-primary col-span-2 max-lg:order-last lg:col-span-1'
            : 'btn h-16 text-base'
        }
        onClick={() => camera.current?.click()}
      >
        {takeLabel}
      </button>
      <button type="button" className="btn h-16 text-base" onClick={() => file.current?.click()}>
        Choose a JPEG
      </button>
      {children}
      {onCamera && (
        <button type="button" className="btn h-16 text-base" onClick={onCamera}>
          Open the camera
        </button>
      )}
      {onTape && (
        <button type="button" className="btn h-16 text-base" onClick={onTape}>
          With a tape
        </button>
      )}
      <FileInput ref={camera} label={takeLabel} accept="image/jpeg" isCamera onFile={onPhoto} />
      <FileInput ref={file} label="Choose a JPEG" accept="image/jpeg,.jpg,.jpeg" onFile={onPhoto} />
    </div>
  );
}
