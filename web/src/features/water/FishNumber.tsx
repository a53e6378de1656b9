import type { PairedJob } from '@lauta/contract';

const JOB_WORDS: Record<PairedJob, string> = {
  camera: 'this phone photographs and claims, the other one times',
  timer: 'this phone times, the other one photographs and claims',
};

/** Which fish both phones are at: the number, not the network, makes one catch of what they tell. */
export function FishNumber({
  number,
  job,
  canGoBack,
  canGoOn,
  set,
}: {
  number: number;
  job: PairedJob;
  /** Not to a fish of which this phone has told already. */
  canGoBack: boolean;
  canGoOn: boolean;
  set: (next: number) => void;
}) {
  return (
    <section aria-label="Two phones" className="border-base-content flex items-center gap-3 border-y-2 py-2">
      <button
        type="button"
        className="btn h-16 w-16 flex-none text-2xl"
        aria-label="Previous fish"
        disabled={!canGoBack}
        onClick={() => set(number - 1)}
      >
        −
      </button>
      <p className="flex-1 text-center leading-tight">
        <b className="num block text-3xl">fish {number}</b>
        <span className="text-quiet text-sm">The same number on both: {JOB_WORDS[job]}.</span>
      </p>
      <button
        type="button"
        className="btn h-16 w-16 flex-none text-2xl"
        aria-label="Next fish"
        disabled={!canGoOn}
        onClick={() => set(number + 1)}
      >
        +
      </button>
    </section>
  );
}
