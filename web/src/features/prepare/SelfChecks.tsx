import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { judgeTestShot, type SelfCheck, type TestShot } from '@lauta/core/planning';
import { readExif } from '@lauta/vision';
import { PHOTOGRAPH_LIMITS } from '@lauta/contract';
import { appNow } from '../../clock/appClock.ts';
import { FileInput } from '../../ui/FileInput.tsx';
import { Signal } from '../../ui/Signal.tsx';
import { roomForCatches } from '../../offline/room.ts';
import { useOfflineReady } from '../../offline/useOfflineReady.ts';
import { measureClockOffset } from '../../custody/clockOffset.ts';
import { keepClockOffset } from '../../device/preparedness.ts';

type See = (check: SelfCheck, isGood: boolean | null) => void;

/** A clock that is off by more would put a catch at the edge of a session on its wrong side. */
const MOST_OFF_MS = 2000;
const LEAST_BATTERY = 0.4;
const CATCHES = 30;

/** What Lauta itself looks at before launch. */
export function SelfChecks({
  see,
  isAtHand,
  hasCode,
}: {
  see: See;
  /** Event, rules, boards and code are on this device; null while they are being fetched. */
  isAtHand: boolean | null;
  /** Null before the code's time. */
  hasCode: boolean | null;
}) {
  const isStored = useOfflineReady();
  useEffect(() => {
    see('at-hand', isAtHand === null ? null : isAtHand && isStored);
    see('code', hasCode);
  }, [see, isAtHand, isStored, hasCode]);
  return (
    <section aria-labelledby="self-checks">
      <h2 id="self-checks">Checked for you</h2>
      <ul className="ruled border-base-300 border-y [&>li]:py-2">
        <TestPhotograph see={see} />
        <Clock see={see} />
        <Battery see={see} />
        <Storage see={see} />
        <Line name="On this device" tone={isAtHand && isStored ? 'clear' : 'look'}>
          {!isAtHand
            ? 'Still being fetched: stay where there is a network.'
            : isStored
              ? 'Event, rules, boards, code and all pages are here: they work without a network.'
              : 'Event, rules, boards and code are fetched; the pages are not stored yet.'}
        </Line>
      </ul>
    </section>
  );
}

function Line({
  name,
  tone,
  children,
}: {
  name: string;
  tone: 'clear' | 'look' | 'fault';
  children: ReactNode;
}) {
  return (
    <li className="grid items-start gap-x-4 sm:grid-cols-[10rem_1fr]">
      <Signal tone={tone}>{name}</Signal>
      <span>{children}</span>
    </li>
  );
}

function TestPhotograph({ see }: { see: See }) {
  const input = useRef<HTMLInputElement>(null);
  const [shot, setShot] = useState<TestShot | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const look = async (photo: File): Promise<void> => {
    setShot(null);
    setSaid('Looking …');
    try {
      if (photo.size > PHOTOGRAPH_LIMITS.maxBytes) throw new RangeError('photo: too large');
      const exif = await readExif(new Uint8Array(await photo.arrayBuffer()));
      const found = judgeTestShot(exif, await lightOf(photo), appNow().getTime());
      setShot(found);
      setSaid(null);
      see('test-photo', found.isGood);
    } catch {
      setSaid('That file cannot be read as a photograph. Take another with the camera that you will use.');
    }
  };
  return (
    <Line name="Test photograph" tone={shot === null ? 'look' : shot.isGood ? 'clear' : 'fault'}>
      {shot ? (
        <TestShotWords shot={shot} />
      ) : (
        (said ?? 'Take one of your board with the camera that you will use, and open it here.')
      )}
      <span className="mt-1 flex gap-2">
        <button type="button" className="btn h-12" onClick={() => input.current?.click()}>
          Open a test photograph
        </button>
      </span>
      <FileInput
        ref={input}
        label="Open a test photograph"
        accept="image/jpeg,.jpg,.jpeg"
        onFile={(photo) => void look(photo)}
      />
    </Line>
  );
}

const LENS_WORDS: Record<TestShot['lens'], string> = {
  wide: 'a wide lens',
  normal: 'a normal lens: choose the wide one',
  long: 'a long lens: choose the wide one',
  unknown: 'the file does not say which lens',
};
const LIGHT_WORDS: Record<TestShot['light'], string> = {
  good: 'enough light',
  dark: 'too dark: lines will be lost in noise',
  'blown-out': 'too bright: lines drown in white',
};

function TestShotWords({ shot }: { shot: TestShot }) {
  const parts = [
    shot.hasTime ? 'time' : 'no time',
    shot.hasOffset ? 'its offset' : 'no offset',
    shot.hasPosition ? 'position' : 'no position',
  ];
  const isOff = shot.offBySeconds !== null && Math.abs(shot.offBySeconds) > 12 * 3600;
  return (
    <>
      In the file: {parts.join(', ')}; {LENS_WORDS[shot.lens]}; {LIGHT_WORDS[shot.light]}.
      {!shot.hasPosition && ' Allow the camera to store where it is, in the phone’s settings.'}
      {isOff && ' Its time is not today’s: set the phone’s clock, or take a new one.'}
    </>
  );
}

const LIGHT_SIDE_PX = 96;
const WHITE = 250;

/** Mean brightness of a photograph and its share of white, from a small copy. */
async function lightOf(photo: Blob): Promise<{ mean: number; whiteShare: number }> {
  const bitmap = await createImageBitmap(photo, { resizeWidth: LIGHT_SIDE_PX, resizeQuality: 'medium' });
  const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d');
  if (!context) throw new Error('canvas: expected a 2d context');
  context.drawImage(bitmap, 0, 0);
  const { data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
  bitmap.close();
  let [sum, white] = [0, 0];
  for (let i = 0; i < data.length; i += 4) {
    const luma = 0.3 * (data[i] ?? 0) + 0.59 * (data[i + 1] ?? 0) + 0.11 * (data[i + 2] ?? 0);
    sum += luma;
    if (luma >= WHITE) white++;
  }
  const count = data.length / 4;
  return { mean: sum / count, whiteShare: white / count };
}

function Clock({ see }: { see: See }) {
  const { data, isError } = useQuery({
    queryKey: ['clock-offset'],
    queryFn: ({ signal }) => measureClockOffset(signal),
    staleTime: 60_000,
  });
  const offsetMs = data?.offsetMs ?? null;
  const isRight = offsetMs === null ? null : Math.abs(offsetMs) <= MOST_OFF_MS + (data?.mayBeOffMs ?? 0);
  useEffect(() => {
    if (offsetMs !== null) keepClockOffset(offsetMs);
    see('clock', isRight);
  }, [see, offsetMs, isRight]);
  if (offsetMs === null) {
    return (
      <Line name="Clock" tone="look">
        {isError ? 'No network: the server’s time is not known.' : 'Asking the server for its time …'}
      </Line>
    );
  }
  const seconds = Math.abs(offsetMs / 1000);
  return (
    <Line name="Clock" tone={isRight ? 'clear' : 'fault'}>
      {seconds < 0.1 ? (
        'Within 0.1 s of the server’s; '
      ) : (
        <>
          <span className="num">{seconds.toFixed(1)} s</span> {offsetMs > 0 ? 'ahead of' : 'behind'} the
          server’s;{' '}
        </>
      )}
      it is recorded with each claim.
      {!isRight && ' Let the phone set its time by itself.'}
    </Line>
  );
}

interface BatteryState {
  level: number;
  charging: boolean;
}

function Battery({ see }: { see: See }) {
  const [battery, setBattery] = useState<BatteryState | 'unknown' | null>(null);
  useEffect(() => {
    const { getBattery } = navigator as { getBattery?: () => Promise<BatteryState> };
    const asked = getBattery?.call(navigator) ?? Promise.reject(new Error('none'));
    asked.then(({ level, charging }) => setBattery({ level, charging })).catch(() => setBattery('unknown'));
  }, []);
  const isGood =
    battery === null || battery === 'unknown' ? null : battery.charging || battery.level >= LEAST_BATTERY;
  useEffect(() => see('battery', isGood), [see, isGood]);
  if (battery === null || battery === 'unknown') {
    return (
      <Line name="Battery" tone="look">
        This browser can’t tell: check it yourself.
      </Line>
    );
  }
  return (
    <Line name="Battery" tone={isGood ? 'clear' : 'fault'}>
      <span className="num">{Math.round(100 * battery.level)} %</span>
      {battery.charging ? ', charging' : ''}
      {!isGood && ': charge it, or take a power bank.'}
    </Line>
  );
}

function Storage({ see }: { see: See }) {
  const [room, setRoom] = useState<number | 'unknown' | null>(null);
  useEffect(() => {
    void roomForCatches().then((found) => setRoom(found ?? 'unknown'));
  }, []);
  const isGood = typeof room === 'number' ? room >= CATCHES : null;
  useEffect(() => see('storage', isGood), [see, isGood]);
  return (
    <Line name="Room" tone={isGood === null ? 'look' : isGood ? 'clear' : 'fault'}>
      {typeof room === 'number' ? (
        <>
          for about <span className="num">{Math.min(room, 999)}</span> catches of twelve frames
          {!isGood && `; make room for ${CATCHES}.`}
        </>
      ) : (
        'This browser can’t tell: check it yourself.'
      )}
    </Line>
  );
}
