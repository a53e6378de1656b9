import { formatScaleLine, type ScaleKind } from '@lauta/core/scale';
import type { Dice } from '../camera/dice.ts';
import { buildScale } from './simulatedScale.ts';

/** How a fish hangs. */
export interface Hanging {
  trueG: number;
  /** Share of its weight by which it pulls at first. */
  swing: number;
  /** After so many seconds the swing is down to a third. */
  calmsSeconds: number;
  /** Pulls anew now and then. */
  struggles: boolean;
}

const SAMPLES_A_SECOND = 10;
const SWING_SECONDS = 0.9;
/** The scale's own spring settles within a third of a second. */
const SETTLE_SECONDS = 0.12;
const STRUGGLE_EVERY_SECONDS = 3.1;
/** Under this the figure sinks with the voltage. */
const LOW_BATTERY = 8;

export interface StreamOptions {
  kind: ScaleKind;
  dice: Dice;
  batteryPercent?: number;
  /** How far the scale warms in the sun, °C an hour: its zero goes along, a gram and a half a degree. */
  warmsPerHour?: number;
}

const G_PER_DEGREE = 1.5;

/** A hanging scale that speaks the line protocol: ten readings a second, over whatever hangs on it. */
export class ScaleStream {
  private readonly options: Required<StreamOptions>;
  private readonly scale: ReturnType<typeof buildScale>;
  private atMs = 0;
  private battery: number;
  private zeroG = 0;
  private hanging: (Hanging & { sinceMs: number }) | null = null;

  constructor(options: StreamOptions) {
    this.options = { batteryPercent: 90, warmsPerHour: 0, ...options };
    this.battery = this.options.batteryPercent;
    this.scale = buildScale(options.kind, options.dice);
  }

  hang(hanging: Hanging): void {
    this.hanging = { ...hanging, sinceMs: this.atMs };
  }

  takeOff(): void {
    this.hanging = null;
  }

  /** Takes what it shows with nothing on it for zero from now on. */
  zero(): void {
    this.zeroG += this.steadyG(0);
  }

  /** The next line. */
  next(): string {
    this.atMs += 1000 / SAMPLES_A_SECOND;
    this.battery = Math.max(0, this.battery - 0.0002);
    const { kind, dice } = this.options;
    const shown = this.steadyG(this.pulledG()) + 0.15 * kind.repeatabilityG * dice.normal();
    if (shown > kind.capacityG) return formatScaleLine({ kind: 'overload', atMs: this.atMs });
    const { divisionG } = kind;
    const massG = Math.round(shown / divisionG) * divisionG;
    return formatScaleLine({
      kind: 'reading',
      atMs: this.atMs,
      massG,
      divisionG,
      batteryPercent: this.battery,
    });
  }

  private steadyG(massG: number): number {
    const warmth = (this.options.warmsPerHour * G_PER_DEGREE * this.atMs) / 3_600_000;
    const sag = this.battery < LOW_BATTERY ? 1 - 0.004 * (LOW_BATTERY - this.battery) : 1;
    return this.scale.pull(massG, this.atMs) * sag + warmth - this.zeroG;
  }

  /** What pulls at the hook now: the weight, and what the fish does. */
  private pulledG(): number {
    if (!this.hanging) return 0;
    const { trueG, swing, calmsSeconds, struggles, sinceMs } = this.hanging;
    const seconds = (this.atMs - sinceMs) / 1000;
    const settled = 1 - Math.exp(-seconds / SETTLE_SECONDS);
    const since = struggles ? seconds % STRUGGLE_EVERY_SECONDS : seconds;
    const swung = swing * Math.exp(-since / calmsSeconds) * Math.cos((2 * Math.PI * seconds) / SWING_SECONDS);
    return trueG * settled * (1 + swung);
  }
}
