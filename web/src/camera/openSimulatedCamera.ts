import { openCaller } from '../workers/calls.ts';
import { FILM_SHOTS, type FilmCalls, type FilmShot, type FilmWish } from './filmProtocol.ts';
import type { LiveSource, Stage } from './liveSource.ts';

type Film = Record<FilmShot, ImageBitmap> & { focal35Mm: number };

const FRAMES_A_SECOND = 12;
/** How far a hand shakes, px, and how much larger the picture is drawn so that no edge shows. */
const SHAKE_PX = 3;
const GROWN = 1.012;
/** Frames for which the fish is not yet laid to the stop. */
const LAYING_FRAMES = 10;
/** Frames for which a hand still lies across the fish that a person holds. */
const HAND_FRAMES = 30;
/** What a restless fish shows in a burst, frame by frame; `~` is blurred. */
const RESTLESS = ['open', 'good', 'open~', 'gap', 'good', 'good~', 'open', 'good', 'gap~', 'good~', 'good', 'open'] as const; // prettier-ignore

let kept: { of: string; film: Promise<Film> } | null = null;

/** Renders the film once for a board, card and fish; told how many of its shots are there. */
function film(wish: FilmWish, onShot: (share: number) => void): Promise<Film> {
  const of = JSON.stringify({ ...wish, board: wish.board.id });
  if (kept?.of !== of) kept = { of, film: render(wish, onShot) };
  const { film: made } = kept;
  // One that failed is tried again by the next who asks.
  made.catch(() => (kept = kept?.film === made ? null : kept));
  return made;
}

async function render(wish: FilmWish, onShot: (share: number) => void): Promise<Film> {
  const workers = [0, 1].map(
    () => new Worker(new URL('./film.worker.ts', import.meta.url), { type: 'module' }),
  );
  const cameras = workers.map((worker) => openCaller<FilmCalls>(worker));
  let done = 0;
  try {
    const shots = await Promise.all(
      FILM_SHOTS.map(async (shot, i) => {
        const camera = cameras[i % cameras.length];
        const made = await camera?.call('shoot', { ...wish, shot });
        onShot(++done / FILM_SHOTS.length);
        return made;
      }),
    );
    const [board, gap, open, good, person, personHand] = shots.map((one) => one?.picture);
    if (!board || !gap || !open || !good || !person || !personHand)
      throw new Error(`film: expected ${FILM_SHOTS.length} shots`);
    return {
      board,
      gap,
      open,
      good,
      person,
      'person-hand': personHand,
      focal35Mm: shots[0]?.focal35Mm ?? 26,
    };
  } finally {
    for (const worker of workers) worker.terminate();
  }
}

/** The demo's camera: films what is not there. A restless fish, a hand that shakes, some frames blurred. */
export async function openSimulatedCamera(
  wish: FilmWish,
  onShot: (share: number) => void,
): Promise<LiveSource> {
  const shots = await film(wish, onShot);
  const canvas = document.createElement('canvas');
  canvas.width = shots.good.width;
  canvas.height = shots.good.height;
  const context = canvas.getContext('2d');
  if (!context) throw new Error('canvas: expected a 2d context');
  let stage: Stage = 'board';
  let count = 0;
  let since = 0;
  const draw = (): void => {
    const restless = RESTLESS[(count - since) % RESTLESS.length] ?? 'good';
    const shown =
      stage === 'board'
        ? 'board'
        : stage === 'burst'
          ? restless
          : stage === 'person'
            ? count - since < HAND_FRAMES
              ? 'person-hand'
              : 'person'
            : count - since < LAYING_FRAMES
              ? 'gap'
              : 'good';
    const picture = shots[shown.replace('~', '') as FilmShot];
    context.filter = shown.endsWith('~') ? 'blur(4px)' : 'none';
    const [x, y] = [Math.sin(count / 5), Math.cos(count / 7)];
    context.drawImage(
      picture,
      -0.5 * (GROWN - 1) * canvas.width + SHAKE_PX * x,
      -0.5 * (GROWN - 1) * canvas.height + SHAKE_PX * y,
      GROWN * canvas.width,
      GROWN * canvas.height,
    );
    count++;
  };
  draw();
  const timer = setInterval(draw, 1000 / FRAMES_A_SECOND);
  const stream = canvas.captureStream(FRAMES_A_SECOND);
  return {
    stream,
    device: 'simulated camera',
    focal35Mm: shots.focal35Mm,
    lenses: [],
    lensId: null,
    stage(next) {
      if (next === stage) return;
      [stage, since] = [next, count];
    },
    close() {
      clearInterval(timer);
      for (const track of stream.getTracks()) track.stop();
    },
  };
}
