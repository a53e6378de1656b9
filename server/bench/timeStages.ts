import type { AnalysisRun, AnalysisStage, CodeReader } from '@lauta/vision';

/** Milliseconds of one run by stage. */
export type StageTimes = Record<'decode' | Exclude<AnalysisStage, 'done'>, number>;

export function newTimes(decode: number): StageTimes {
  return { decode, prepare: 0, board: 0, fish: 0, identifier: 0, checks: 0 };
}

/** Runs an analysis to its end and adds each stage's milliseconds. */
export async function timeStages(steps: AnalysisRun, readCodes: CodeReader, into: StageTimes): Promise<void> {
  let stage: AnalysisStage = 'prepare';
  let from = performance.now();
  let step = steps.next();
  for (;;) {
    const now = performance.now();
    if (stage !== 'done') into[stage] += now - from;
    from = now;
    if (step.done) return;
    stage = step.value.stage;
    const codes = step.value.codePicture ? await readCodes(step.value.codePicture) : undefined;
    step = steps.next(codes);
  }
}
