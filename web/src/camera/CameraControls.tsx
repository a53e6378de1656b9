import { SHUTTERS, SHUTTER_WORDS, rememberCameraChoices, type ShutterMode } from './cameraChoices.ts';
import type { FrameRole } from './frames.ts';
import type { LiveSource } from './liveSource.ts';

const ROLE_WORDS = { board: 'On the board', person: 'With you' } as const;

/** How the shutter is worked, what is photographed, and by which lens: chosen before the fish is out of the water. */
export function CameraControls({
  source,
  mode,
  setMode,
  role,
  setRole,
  chooseLens,
}: {
  source: LiveSource;
  mode: ShutterMode;
  setMode: (mode: ShutterMode) => void;
  role: FrameRole;
  setRole: (role: FrameRole) => void;
  chooseLens: (lensId: string) => void;
}) {
  return (
    <>
      <fieldset>
        <legend className="text-quiet">The shutter</legend>
        <div className="grid grid-cols-5 gap-2">
          {SHUTTERS.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={mode === one}
              className={`btn h-16 px-1 text-sm leading-tight ${mode === one ? 'btn-primary' : ''}`}
              onClick={() => {
                rememberCameraChoices({ shutter: one });
                setMode(one);
              }}
            >
              {SHUTTER_WORDS[one]}
            </button>
          ))}
        </div>
      </fieldset>
      <div className="grid grid-cols-2 gap-2">
        {(['board', 'person'] as const).map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={role === one}
            className={`btn h-16 ${role === one ? 'btn-primary' : ''}`}
            onClick={() => setRole(one)}
          >
            {ROLE_WORDS[one]}
          </button>
        ))}
      </div>
      {source.lenses.length > 1 && (
        <label className="grid gap-1">
          <span className="text-quiet">Lens; the wide one shows the whole board from nearer</span>
          <select
            className="select h-16 w-full"
            value={source.lensId ?? ''}
            onChange={(change) => chooseLens(change.currentTarget.value)}
          >
            {source.lenses.map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
      )}
    </>
  );
}
