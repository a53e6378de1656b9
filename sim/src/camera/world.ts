import { faceLengthMm } from '@lauta/vision';
import { paintBoard } from './paintBoard.ts';
import { CARD_MM } from '@lauta/core/identifier';
import { paintCard } from './card.ts';
import { blurCells } from './blurCells.ts';
import { seedFor } from './dice.ts';
import { layDrops, type Drops } from './drops.ts';
import { paintGround } from './ground.ts';
import { clamp, smoothstep, type Rgb, type Texture } from './rgb.ts';
import { makeNoise } from './noise.ts';
import { Plates, type Plate } from './plates.ts';
import type { Relief } from './relief.ts';
import { ReliefTiles } from './reliefTiles.ts';
import { sampleTexture, sampled } from './sampleTexture.ts';
import { BOARD_THICK_MM, OVER_FISH_MM, rayCaster, type Scene, type Vector } from './scene.ts';

const BAND_MM = 14;

/** Everything that light falls on, and what a ray from the camera sees of it. */
export class World {
  private readonly face: Texture;
  private readonly card: Texture | null;
  private readonly drops: Drops | null;
  private readonly plates: Plates;
  private readonly groundAt: ReturnType<typeof paintGround>;
  private readonly sunlit: Float32Array;
  private readonly sunlitColumns: number;
  private readonly tiles: ReliefTiles;
  private readonly lengthMm: number;
  private readonly colour: [number, number, number] = [0, 0, 0];
  private readonly ray: [number, number, number] = [0, 0, 0];
  private cover = 0;
  private gloss = 0;
  private readonly origin: Vector;
  private readonly isShaded: boolean;
  private readonly leaves: (x: number, y: number) => number;
  private readonly rayOf: ReturnType<typeof rayCaster>;

  private readonly scene: Scene;
  private readonly relief: Relief;

  constructor(scene: Scene, relief: Relief) {
    this.scene = scene;
    this.relief = relief;
    const { board } = scene;
    this.rayOf = rayCaster(scene.camera);
    this.origin = scene.camera.positionMm;
    this.isShaded = scene.light.shade !== null || scene.light.dapple !== undefined;
    this.leaves = makeNoise(scene.light.dapple?.seed ?? 0);
    this.lengthMm = faceLengthMm(board);
    this.face = paintBoard(board, seedFor(scene.seed, 'wear'), scene.wear, scene.print);
    this.drops = scene.wet ? layDrops(scene.wet, this.lengthMm, board.widthMm) : null;
    this.card = scene.card ? paintCard(scene.card.identifier, scene.card.isHandwritten) : null;
    this.groundAt = paintGround(scene.ground, seedFor(scene.seed, 'ground'));
    this.plates = new Plates(board);
    this.tiles = new ReliefTiles(relief);
    this.sunlitColumns = Math.ceil(relief.columns / 2);
    this.sunlit = this.castShadows();
  }

  /**
   * Adds the colour (0-255) seen through a pixel to `sum`.
   * @returns whether there is detail that wants more than one ray
   */
  see(column: number, row: number, sum: Float32Array): boolean {
    const { ray, colour } = this;
    this.rayOf(column, row, ray);
    const detailed = this.trace(ray[0], ray[1], ray[2]);
    const { exposure } = this.scene;
    sum[0] = sum[0] + toned(exposure * colour[0]);
    sum[1] = sum[1] + toned(exposure * colour[1]);
    sum[2] = sum[2] + toned(exposure * colour[2]);
    return detailed;
  }

  private trace(dx: number, dy: number, dz: number): boolean {
    const ox = this.origin[0];
    const oy = this.origin[1];
    const oz = this.origin[2];
    const toFace = -oz / dz;
    if (this.seeCardOnTop(ox, oy, oz, dx, dy, dz)) return true;
    const hitsPlate = this.plates.hit(ox, oy, oz, dx, dy, dz);
    const { plate, side, t: plateT } = this.plates;
    const body = this.tiles.hit(ox, oy, oz, dx, dy, dz, hitsPlate ? Math.min(toFace, plateT) : toFace);
    if (body >= 0) {
      this.shadeBody(ox + body * dx, oy + body * dy, dx, dy, dz);
      return true;
    }
    if (hitsPlate && plate) {
      this.shadePlate(plate, side, ox + plateT * dx, oy + plateT * dy, oz + plateT * dz);
      return true;
    }
    const x = ox + toFace * dx;
    const y = oy + toFace * dy;
    if (this.onSlab(x, y)) {
      this.shadeFace(x, y, dx, dy, dz);
      return true;
    }
    const toGround = -(oz + BOARD_THICK_MM) / dz;
    return this.shadeGround(ox + toGround * dx, oy + toGround * dy);
  }

  /** A card that lies on the fish hides it, but for what stands higher. */
  private seeCardOnTop(ox: number, oy: number, oz: number, dx: number, dy: number, dz: number): boolean {
    const zMm = this.scene.card?.zMm ?? 0;
    if (zMm < OVER_FISH_MM) return false;
    const t = (zMm - oz) / dz;
    const x = ox + t * dx;
    const y = oy + t * dy;
    if (!this.sampleCard(x, y, zMm) || this.relief.heightAt(x, y) > zMm + 2) return false;
    this.lightSampled(this.outOfShade(x, y));
    this.shineOnCard(x, y);
    return true;
  }

  private onSlab(x: number, y: number): boolean {
    return (
      x >= -this.scene.board.stop.thicknessMm && x < this.lengthMm && y >= 0 && y < this.scene.board.widthMm
    );
  }

  /** Share of the sun that reaches each second cell of the relief. */
  private castShadows(): Float32Array {
    const { relief, sunlitColumns } = this;
    const rows = Math.ceil(relief.rows / 2);
    const sharp = new Float32Array(sunlitColumns * rows);
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < sunlitColumns; column++) {
        const x = relief.x0Mm + (2 * column + 1) / relief.cellsPerMm;
        const y = relief.y0Mm + (2 * row + 1) / relief.cellsPerMm;
        const lit = this.reachesSun(x, y, relief.heightAt(x, y) + 0.4);
        sharp[row * sunlitColumns + column] = lit ? 1 : 0;
      }
    }
    return blurCells(sharp, sunlitColumns, rows);
  }

  private reachesSun(x: number, y: number, z: number): boolean {
    const [sx, sy, sz] = this.scene.light.sun;
    if (this.plates.hit(x, y, z, sx || 1e-9, sy || 1e-9, sz) && this.plates.t > 0.01) return false;
    return !this.tiles.blocks(x, y, z, this.scene.light.sun);
  }

  private sunlitAt(x: number, y: number): number {
    const { relief } = this;
    const column = Math.floor(((x - relief.x0Mm) * relief.cellsPerMm) / 2);
    const row = Math.floor(((y - relief.y0Mm) * relief.cellsPerMm) / 2);
    const open = this.outOfShade(x, y);
    if (column < 0 || column >= this.sunlitColumns) return open;
    return open * (this.sunlit[row * this.sunlitColumns + column] ?? 1);
  }

  private outOfShade(x: number, y: number): number {
    if (!this.isShaded) return 1;
    const { shade } = this.scene.light;
    const open = this.throughLeaves(x, y);
    if (!shade) return open;
    const beyond = shade.nx * x + shade.ny * y - shade.offsetMm;
    return open * (1 - smoothstep(-shade.softMm, shade.softMm, beyond));
  }

  private throughLeaves(x: number, y: number): number {
    const { dapple } = this.scene.light;
    if (!dapple) return 1;
    return 1 - dapple.depth * smoothstep(0.45, 0.55, this.leaves(x / dapple.sizeMm, y / dapple.sizeMm));
  }

  /** Colours a surface: the sky from everywhere, the sun by its angle. */
  private light(
    red: number,
    green: number,
    blue: number,
    nx: number,
    ny: number,
    nz: number,
    sunlit: number,
  ): void {
    const { sun, sunStrength, skyStrength, warmth } = this.scene.light;
    const lambert = Math.max(0, nx * sun[0] + ny * sun[1] + nz * sun[2]);
    const direct = sunStrength * lambert * sunlit;
    const sky = skyStrength * (0.55 + 0.45 * nz);
    this.colour[0] = red * (direct * (1 + warmth) + sky * 0.97);
    this.colour[1] = green * (direct + sky);
    this.colour[2] = blue * (direct * (1 - warmth) + sky * 1.05);
  }

  /** The colour last sampled, lying flat. */
  private lightSampled(sunlit: number, nz = 1): void {
    this.light(sampled[0], sampled[1], sampled[2], 0, 0, nz, sunlit);
  }

  private shadeFace(x: number, y: number, dx: number, dy: number, dz: number): void {
    const sunlit = this.sunlitAt(x, y);
    const isCard = this.sampleCard(x, y, 0);
    if (!isCard) sampleTexture(this.face, x, y);
    this.lightSampled(sunlit);
    if (isCard) {
      this.shineOnCard(x, y);
      return;
    }
    const { wet } = this.scene;
    if (!wet) return;
    // A water film mirrors the sun about its mirror direction; a drop does so at one place, and darkens its rim.
    const { sun, sunStrength } = this.scene.light;
    const away = Math.sqrt(dx * dx + dy * dy + dz * dz);
    const drop = this.drops?.at(x, y) ?? null;
    const nx = drop ? drop.nx : 0;
    const ny = drop ? drop.ny : 0;
    const hx = sun[0] - dx / away;
    const hy = sun[1] - dy / away;
    const hz = sun[2] - dz / away;
    const half = Math.sqrt(hx * hx + hy * hy + hz * hz);
    const cosine = (nx * hx + ny * hy + hz) / half / Math.sqrt(nx * nx + ny * ny + 1);
    const dim = drop ? drop.dim : 1;
    // Below that so little is mirrored that no level of 255 changes.
    const shine =
      cosine < 0.8 ? 0 : sunStrength * sunlit * (drop ? 240 * cosine ** 300 : wet.shine * 200 * cosine ** 80);
    this.colour[0] = this.colour[0] * dim + shine;
    this.colour[1] = this.colour[1] * dim + shine;
    this.colour[2] = this.colour[2] * dim + shine;
  }

  private shadeGround(x: number, y: number): boolean {
    // Under the slab's edge lies its own shadow.
    const edge = this.onSlab(x, y) ? 0.35 : 1;
    const isCard = this.sampleCard(x, y, -BOARD_THICK_MM);
    const clutter = this.clutterAt(x, y, isCard);
    if (clutter) {
      const [red, green, blue] = clutter.colour;
      this.light(red, green, blue, clutter.nx, clutter.ny, clutter.nz, this.sunlitAt(x, y) * edge);
      return true;
    }
    if (!isCard) this.groundAt(x, y, sampled);
    this.lightSampled(this.sunlitAt(x, y) * edge, edge);
    if (isCard) this.shineOnCard(x, y);
    return isCard || edge < 1;
  }

  /** What lies on the ground is painted as rounded sticks. */
  private clutterAt(
    x: number,
    y: number,
    isOnCard: boolean,
  ): { colour: Rgb; nx: number; ny: number; nz: number } | null {
    const { clutter } = this.scene;
    if (!clutter) return null;
    for (const { parts, colour, isOnCard: isOver = false } of clutter) {
      if (isOnCard && !isOver) continue;
      for (const { from, to, radiusFromMm, radiusToMm } of parts) {
        const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
        const t = clamp(((x - from[0]) * dx + (y - from[1]) * dy) / Math.max(1e-6, dx * dx + dy * dy), 0, 1);
        const radius = radiusFromMm + (radiusToMm - radiusFromMm) * t;
        const nx = (x - from[0] - t * dx) / radius;
        const ny = (y - from[1] - t * dy) / radius;
        const flat = nx * nx + ny * ny;
        if (flat < 1) return { colour, nx, ny, nz: Math.sqrt(1 - flat) };
      }
    }
    return null;
  }

  private shineOnCard(x: number, y: number): void {
    const glare = this.scene.card?.glare;
    if (!glare) return;
    const [u, v] = this.cardPlace(x, y);
    const off = Math.hypot(u - glare.atMm[0], v - glare.atMm[1]) / glare.radiusMm;
    const shine = (glare.strength * Math.exp(-(off ** 4))) / this.scene.exposure;
    this.colour[0] += shine;
    this.colour[1] += shine;
    this.colour[2] += shine;
  }

  private cardPlace(x: number, y: number): [number, number] {
    const placed = this.scene.card;
    if (!placed) return [NaN, NaN];
    const dx = x - placed.centreMm[0];
    const dy = y - placed.centreMm[1];
    const c = Math.cos(placed.turnRad);
    const s = Math.sin(placed.turnRad);
    return [dx * c + dy * s + CARD_MM.width / 2, -dx * s + dy * c + CARD_MM.height / 2];
  }

  /** Samples the card where it lies at that height over a place; whether it does. */
  private sampleCard(x: number, y: number, levelMm: number): boolean {
    const placed = this.scene.card;
    if (!placed || !this.card || Math.abs(placed.zMm - levelMm) > 2) return false;
    const dx = x - placed.centreMm[0];
    const dy = y - placed.centreMm[1];
    if (dx * dx + dy * dy > CARD_REACH2) return false;
    const [u, v] = this.cardPlace(x, y);
    if (u < 0 || v < 0 || u >= CARD_MM.width || v >= CARD_MM.height) return false;
    sampleTexture(this.card, u, v);
    return true;
  }

  private shadePlate(plate: Plate, side: 0 | 1 | 2, x: number, y: number, z: number): void {
    const banded = plate.band !== null && side === 0 && z < BAND_MM;
    const marked = plate.isStop && side !== 1 ? this.stopMarkAt(y) : null;
    const colour = marked ?? (banded && plate.band ? plate.band : plate.colour);
    const nx = side === 0 ? 1 : 0;
    const ny = side === 1 ? 1 : 0;
    const lit = side === 2 || this.reachesSun(x + nx, y + ny, z) ? 1 : 0;
    this.light(colour[0], colour[1], colour[2], nx, ny, side === 2 ? 1 : 0, lit);
  }

  private stopMarkAt(y: number): Rgb | null {
    const mark = this.scene.stopMarks?.find(({ yMm, thickMm }) => Math.abs(y - yMm) < thickMm / 2);
    return mark?.colour ?? null;
  }

  private shadeBody(x: number, y: number, dx: number, dy: number, dz: number): void {
    const { relief } = this;
    const gap = 1.4;
    const sx = clamp((relief.heightAt(x + gap, y) - relief.heightAt(x - gap, y)) / (2 * gap), -3, 3);
    const sy = clamp((relief.heightAt(x, y + gap) - relief.heightAt(x, y - gap)) / (2 * gap), -3, 3);
    const nz = 1 / Math.sqrt(sx * sx + sy * sy + 1);
    const nx = -sx * nz;
    const ny = -sy * nz;
    this.sampleRelief(x, y);
    const { cover, gloss } = this;
    if (cover < 1 && this.onSlab(x, y)) {
      const [red, green, blue] = [sampled[0], sampled[1], sampled[2]];
      sampleTexture(this.face, x, y);
      const share = clamp(cover, 0, 1);
      sampled[0] = red * share + sampled[0] * (1 - share);
      sampled[1] = green * share + sampled[1] * (1 - share);
      sampled[2] = blue * share + sampled[2] * (1 - share);
    }
    const sunlit = this.sunlitAt(x, y);
    this.light(sampled[0], sampled[1], sampled[2], nx, ny, nz, sunlit);
    // The wet skin mirrors the sun.
    const { sun, sunStrength } = this.scene.light;
    const away = Math.sqrt(dx * dx + dy * dy + dz * dz);
    const hx = sun[0] - dx / away;
    const hy = sun[1] - dy / away;
    const hz = sun[2] - dz / away;
    const half = (nx * hx + ny * hy + nz * hz) / Math.sqrt(hx * hx + hy * hy + hz * hz);
    if (half <= 0 || gloss === 0) return;
    const sharp = half < 0.8 ? 0 : gloss * sunStrength * sunlit * 170 * half ** 60;
    const half2 = half * half;
    const half4 = half2 * half2;
    const shine = sharp + gloss * 14 * half4 * half4;
    this.colour[0] += shine;
    this.colour[1] += shine;
    this.colour[2] += shine;
  }

  /** Colour, cover and gloss of what lies at a place. */
  private sampleRelief(x: number, y: number): void {
    const { relief } = this;
    const { columns, colour } = relief;
    const u = clamp((x - relief.x0Mm) * relief.cellsPerMm - 0.5, 0, columns - 2);
    const v = clamp((y - relief.y0Mm) * relief.cellsPerMm - 0.5, 0, relief.rows - 2);
    const column = Math.floor(u);
    const row = Math.floor(v);
    const fu = u - column;
    const fv = v - row;
    let r = 0;
    let g = 0;
    let b = 0;
    let cover = 0;
    let gloss = 0;
    let weight = 0;
    for (let corner = 0; corner < 4; corner++) {
      const cell = (row + (corner >> 1)) * columns + column + (corner & 1);
      const share = ((corner & 1) === 1 ? fu : 1 - fu) * (corner >> 1 === 1 ? fv : 1 - fv);
      const covered = relief.cover[cell];
      if (covered === 0) continue;
      r += share * colour[cell * 3];
      g += share * colour[cell * 3 + 1];
      b += share * colour[cell * 3 + 2];
      cover += share * covered;
      gloss += share * relief.gloss[cell];
      weight += share;
    }
    const isBare = weight === 0;
    sampled[0] = isBare ? 90 : r / weight;
    sampled[1] = isBare ? 90 : g / weight;
    sampled[2] = isBare ? 70 : b / weight;
    this.cover = isBare ? 1 : cover / weight;
    this.gloss = isBare ? 0 : gloss / weight;
  }
}

/** A phone's tone curve: a gentle shoulder, so that sunlit white does not clip at once. In and out 0 to 255. */
function toned(level: number): number {
  const linear = level / 255;
  return 255 * (linear < 0.75 ? linear : 0.75 + (1 - Math.exp(-(linear - 0.75) * 2.2)) / 2.2 / 1.05);
}

const CARD_REACH2 = (CARD_MM.width ** 2 + CARD_MM.height ** 2) / 4 + 1;
