import { faceLengthMm, type MeasuringBoard } from '@lauta/vision';
import { hexRgb, type Rgb } from './rgb.ts';
import type { Vector } from './scene.ts';

/** An upright plate: the stop, or the wall along the far edge. */
export interface Plate {
  low: Vector;
  high: Vector;
  colour: Rgb;
  /** Painted at the foot of the face that looks along +x. */
  band: Rgb | null;
  isStop: boolean;
}

/** A board's upright plates. What was hit last is kept here: nothing is made anew for each of millions of rays. */
export class Plates {
  plate: Plate | null = null;
  t = 0;
  side: 0 | 1 | 2 = 0;
  private readonly all: Plate[];

  constructor(board: MeasuringBoard) {
    this.all = [
      {
        low: [-board.stop.thicknessMm, 0, 0],
        high: [0, board.widthMm, board.stop.heightMm],
        colour: hexRgb(board.stop.colour),
        band: board.stop.band ? hexRgb(board.stop.band) : null,
        isStop: true,
      },
    ];
    if (board.wall) {
      this.all.push({
        low: [-board.stop.thicknessMm, -board.wall.thicknessMm, 0],
        high: [faceLengthMm(board), 0, board.wall.heightMm],
        colour: hexRgb(board.wall.colour),
        band: null,
        isStop: false,
      });
    }
  }

  /** Whether a ray meets a plate; which, where and at which side is kept until the next one is asked for. */
  hit(ox: number, oy: number, oz: number, dx: number, dy: number, dz: number): boolean {
    let isHit = false;
    const perX = 1 / dx;
    const perY = 1 / dy;
    const perZ = 1 / dz;
    for (let i = 0; i < this.all.length; i++) {
      const plate = this.all[i];
      const { low, high } = plate;
      const x0 = (low[0] - ox) * perX;
      const x1 = (high[0] - ox) * perX;
      const enterX = x0 < x1 ? x0 : x1;
      const leaveX = x0 < x1 ? x1 : x0;
      const y0 = (low[1] - oy) * perY;
      const y1 = (high[1] - oy) * perY;
      const enterY = y0 < y1 ? y0 : y1;
      const leaveY = y0 < y1 ? y1 : y0;
      if (enterX >= leaveY || enterY >= leaveX) continue;
      const z0 = (low[2] - oz) * perZ;
      const z1 = (high[2] - oz) * perZ;
      const enterZ = z0 < z1 ? z0 : z1;
      const leaveZ = z0 < z1 ? z1 : z0;
      let enter = enterX > enterY ? enterX : enterY;
      if (enterZ > enter) enter = enterZ;
      let leave = leaveX < leaveY ? leaveX : leaveY;
      if (leaveZ < leave) leave = leaveZ;
      if (enter >= leave || enter <= 0 || (isHit && enter >= this.t)) continue;
      isHit = true;
      this.plate = plate;
      this.t = enter;
      this.side = enter === enterX ? 0 : enter === enterY ? 1 : 2;
    }
    return isHit;
  }
}
