import { faceLengthMm } from '@lauta/core/photo';
import { paintBoard } from './boardTexture.ts';
import { CARD_MM } from '@lauta/core/identifier';
import { paintCard } from './card.ts';
import { rollDice, seedFor } from './dice.ts';
import { paintGround } from './ground.ts';
import { clamp, smoothstep, hexRgb, type Rgb, type Texture } from './paint.ts';
import type { Relief } from './relief.ts';
import { BOARD_THICK_MM, OVER_FISH_MM, rayCaster, type Scene, type Vector, type Wet } from './scene.ts';

/** An upright plate: the stop, or the wall along the far edge. */
interface Plate {
  low: Vector;
  high: Vector;
  colour: Rgb;
  /** Painted at the foot of the face that looks along +x. */
  band: Rgb | null;
}

const TILE_MM = 8;
const BAND_MM = 14;

/** Everything that light falls on, and what a ray from the camera sees of it. */
export class World {
  private readonly face: Texture;
  private readonly card: Texture | null;
  private readonly drops: Drops | null;
  private readonly plates: Plate[];
  private readonly groundAt: (xMm: number, yMm: number) => Rgb;
  private readonly sunlit: Float32Array;
  private readonly sunlitColumns: number;
  private readonly tiles: Uint8Array;
  private readonly tileColumns: number;
  private readonly highestMm: number;
  private readonly lengthMm: number;
  private readonly colour: [number, number, number] = [0, 0, 0];
  private readonly ray: [number, number, number] = [0, 0, 0];
  private readonly rayOf: ReturnType<typeof rayCaster>;

  private readonly scene: Scene;
  private readonly relief: Relief;

  constructor(scene: Scene, relief: Relief) {
    this.scene = scene;
    this.relief = relief;
    const { board } = scene;
    this.rayOf = rayCaster(scene.camera);
    this.lengthMm = faceLengthMm(board);
    this.face = paintBoard(board, seedFor(scene.seed, 'wear'), scene.wear);
    this.drops = scene.wet ? layDrops(scene.wet, this.lengthMm, board.widthMm) : null;
    this.card = scene.card ? paintCard(scene.card.identifier, scene.card.isHandwritten) : null;
    this.groundAt = paintGround(scene.ground, seedFor(scene.seed, 'ground'));
    this.plates = [
      {
        low: [-board.stop.thicknessMm, 0, 0],
        high: [0, board.widthMm, board.stop.heightMm],
        colour: hexRgb(board.stop.colour),
        band: board.stop.band ? hexRgb(board.stop.band) : null,
      },
    ];
    if (board.wall) {
      this.plates.push({
        low: [-board.stop.thicknessMm, -board.wall.thicknessMm, 0],
        high: [this.lengthMm, 0, board.wall.heightMm],
        colour: hexRgb(board.wall.colour),
        band: null,
      });
    }
    this.highestMm = relief.height.reduce((high, value) => Math.max(high, value), 0);
    this.tileColumns = Math.ceil((relief.x1Mm - relief.x0Mm) / TILE_MM) + 1;
    this.tiles = this.markTiles();
    this.sunlitColumns = Math.ceil(relief.columns / 2);
    this.sunlit = this.castShadows();
  }

  /**
   * Adds the colour (0-255) seen through a pixel to `sum`.
   * @returns whether there is detail that wants more than one ray
   */
  see(column: number, row: number, sum: Float32Array): boolean {
    this.rayOf(column, row, this.ray);
    const [dx, dy, dz] = this.ray;
    const detailed = this.trace(dx, dy, dz);
    for (let channel = 0; channel < 3; channel++) {
      const linear = (this.scene.exposure * (this.colour[channel as 0 | 1 | 2] as number)) / 255;
      // A phone's tone curve: a gentle shoulder, so that sunlit white does not clip at once.
      const toned = linear < 0.75 ? linear : 0.75 + (1 - Math.exp(-(linear - 0.75) * 2.2)) / 2.2 / 1.05;
      sum[channel] = (sum[channel] as number) + 255 * toned;
    }
    return detailed;
  }

  private trace(dx: number, dy: number, dz: number): boolean {
    const [ox, oy, oz] = this.scene.camera.positionMm;
    const toFace = -oz / dz;
    if (this.seeCardOnTop(ox, oy, oz, dx, dy, dz)) return true;
    const plate = this.hitPlate(ox, oy, oz, dx, dy, dz);
    const body = this.hitRelief(ox, oy, oz, dx, dy, dz, Math.min(toFace, plate?.t ?? Infinity));
    if (body !== null) {
      this.shadeBody(ox + body * dx, oy + body * dy, dx, dy, dz);
      return true;
    }
    if (plate) {
      this.shadePlate(plate.plate, plate.side, ox + plate.t * dx, oy + plate.t * dy, oz + plate.t * dz);
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
    const [x, y] = [ox + t * dx, oy + t * dy];
    const card = this.overCard(x, y, zMm);
    if (!card || this.relief.heightAt(x, y) > zMm + 2) return false;
    this.light(card, 0, 0, 1, this.outOfShade(x, y));
    this.shineOnCard(x, y);
    return true;
  }

  private onSlab(x: number, y: number): boolean {
    return (
      x >= -this.scene.board.stop.thicknessMm && x < this.lengthMm && y >= 0 && y < this.scene.board.widthMm
    );
  }

  private hitPlate(
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
  ): { t: number; plate: Plate; side: 0 | 1 | 2 } | null {
    let nearest: { t: number; plate: Plate; side: 0 | 1 | 2 } | null = null;
    for (const plate of this.plates) {
      const x0 = (plate.low[0] - ox) / dx;
      const x1 = (plate.high[0] - ox) / dx;
      const y0 = (plate.low[1] - oy) / dy;
      const y1 = (plate.high[1] - oy) / dy;
      const z0 = (plate.low[2] - oz) / dz;
      const z1 = (plate.high[2] - oz) / dz;
      const enterX = Math.min(x0, x1);
      const enterY = Math.min(y0, y1);
      const enterZ = Math.min(z0, z1);
      const enter = Math.max(enterX, enterY, enterZ);
      const leave = Math.min(Math.max(x0, x1), Math.max(y0, y1), Math.max(z0, z1));
      if (enter >= leave || enter <= 0 || (nearest && enter >= nearest.t)) continue;
      nearest = { t: enter, plate, side: enter === enterX ? 0 : enter === enterY ? 1 : 2 };
    }
    return nearest;
  }

  /** Walks down through the relief; null when the ray reaches `limit` without touching it. */
  private hitRelief(
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
    limit: number,
  ): number | null {
    const start = (this.highestMm - oz) / dz;
    if (
      start >= limit ||
      !this.crossesTiles(ox + start * dx, oy + start * dy, ox + limit * dx, oy + limit * dy)
    )
      return null;
    const acrossMm = Math.sqrt(dx * dx + dy * dy) * (limit - start);
    const steps = Math.max(4, Math.ceil(acrossMm / 1.2));
    const stride = (limit - start) / steps;
    let before = start;
    for (let i = 1; i <= steps; i++) {
      const t = start + i * stride;
      if (this.relief.heightAt(ox + t * dx, oy + t * dy) > oz + t * dz) {
        const hit = this.bisect(ox, oy, oz, dx, dy, dz, before, t);
        // The last slope of the grid, from a covered cell down to a bare one, is no body.
        if (this.relief.isCoveredAt(ox + hit * dx, oy + hit * dy)) return hit;
      }
      before = t;
    }
    return null;
  }

  private bisect(
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
    above: number,
    below: number,
  ): number {
    let [high, low] = [above, below];
    for (let i = 0; i < 7; i++) {
      const middle = (high + low) / 2;
      if (this.relief.heightAt(ox + middle * dx, oy + middle * dy) > oz + middle * dz) low = middle;
      else high = middle;
    }
    return low;
  }

  private markTiles(): Uint8Array {
    const { relief } = this;
    const rows = Math.ceil((relief.y1Mm - relief.y0Mm) / TILE_MM) + 1;
    const tiles = new Uint8Array(rows * this.tileColumns);
    const perTile = TILE_MM * relief.cellsPerMm;
    for (let row = 0; row < relief.rows; row++) {
      for (let column = 0; column < relief.columns; column++) {
        if ((relief.height[row * relief.columns + column] as number) === 0) continue;
        tiles[Math.floor(row / perTile) * this.tileColumns + Math.floor(column / perTile)] = 1;
      }
    }
    return tiles;
  }

  private crossesTiles(x0: number, y0: number, x1: number, y1: number): boolean {
    const { x0Mm, y0Mm, x1Mm, y1Mm } = this.relief;
    if (
      Math.max(x0, x1) < x0Mm ||
      Math.min(x0, x1) > x1Mm ||
      Math.max(y0, y1) < y0Mm ||
      Math.min(y0, y1) > y1Mm
    )
      return false;
    const steps = Math.ceil(Math.max(Math.abs(x1 - x0), Math.abs(y1 - y0)) / (TILE_MM / 2)) + 1;
    for (let i = 0; i <= steps; i++) {
      const column = Math.floor((x0 + ((x1 - x0) * i) / steps - this.relief.x0Mm) / TILE_MM);
      const row = Math.floor((y0 + ((y1 - y0) * i) / steps - this.relief.y0Mm) / TILE_MM);
      if (
        column >= 0 &&
        column < this.tileColumns &&
        (this.tiles[row * this.tileColumns + column] ?? 0) === 1
      )
        return true;
    }
    return false;
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
    return blur(sharp, sunlitColumns, rows);
  }

  private reachesSun(x: number, y: number, z: number): boolean {
    const [sx, sy, sz] = this.scene.light.sun;
    const plate = this.hitPlate(x, y, z, sx || 1e-9, sy || 1e-9, sz);
    if (plate && plate.t > 0.01) return false;
    const flat = Math.hypot(sx, sy);
    const strideMm = 1.6;
    const rise = (strideMm / flat) * sz;
    let [px, py, pz] = [x, y, z];
    while ((pz += rise) < this.highestMm) {
      px += (strideMm * sx) / flat;
      py += (strideMm * sy) / flat;
      if (this.relief.heightAt(px, py) > pz) return false;
    }
    return true;
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
    const { shade } = this.scene.light;
    if (!shade) return 1;
    const beyond = shade.nx * x + shade.ny * y - shade.offsetMm;
    return 1 - smoothstep(-shade.softMm, shade.softMm, beyond);
  }

  /** Colours a surface: the sky from everywhere, the sun by its angle. */
  private light(colour: Rgb, nx: number, ny: number, nz: number, sunlit: number): void {
    const { sun, sunStrength, skyStrength, warmth } = this.scene.light;
    const lambert = Math.max(0, nx * sun[0] + ny * sun[1] + nz * sun[2]);
    const direct = sunStrength * lambert * sunlit;
    const sky = skyStrength * (0.55 + 0.45 * nz);
    this.colour[0] = colour[0] * (direct * (1 + warmth) + sky * 0.97);
    this.colour[1] = colour[1] * (direct + sky);
    this.colour[2] = colour[2] * (direct * (1 - warmth) + sky * 1.05);
  }

  private shadeFace(x: number, y: number, dx: number, dy: number, dz: number): void {
    const sunlit = this.sunlitAt(x, y);
    const card = this.overCard(x, y, 0);
    this.light(card ?? sampleTexture(this.face, x, y), 0, 0, 1, sunlit);
    if (card) this.shineOnCard(x, y);
    const { wet } = this.scene;
    if (!wet || card) return;
    // A water film mirrors the sun about its mirror direction; a drop does so at one place, and darkens its rim.
    const { sun, sunStrength } = this.scene.light;
    const away = Math.hypot(dx, dy, dz);
    const drop = this.drops?.at(x, y) ?? null;
    const [nx, ny] = drop ? [drop.nx, drop.ny] : [0, 0];
    const half = Math.hypot(sun[0] - dx / away, sun[1] - dy / away, sun[2] - dz / away);
    const cosine = Math.max(
      0,
      (nx * (sun[0] - dx / away) + ny * (sun[1] - dy / away) + (sun[2] - dz / away)) /
        half /
        Math.hypot(nx, ny, 1),
    );
    const shine = sunStrength * sunlit * (drop ? 240 * cosine ** 300 : wet.shine * 200 * cosine ** 80);
    for (const channel of [0, 1, 2] as const)
      this.colour[channel] = this.colour[channel] * (drop ? drop.dim : 1) + shine;
  }

  private shadeGround(x: number, y: number): boolean {
    // Under the slab's edge lies its own shadow.
    const edge = this.onSlab(x, y) ? 0.35 : 1;
    const card = this.overCard(x, y, -BOARD_THICK_MM);
    const clutter = this.clutterAt(x, y, card !== null);
    if (clutter) {
      this.light(clutter.colour, clutter.nx, clutter.ny, clutter.nz, this.sunlitAt(x, y) * edge);
      return true;
    }
    this.light(card ?? this.groundAt(x, y), 0, 0, edge, this.sunlitAt(x, y) * edge);
    if (card) this.shineOnCard(x, y);
    return card !== null || edge < 1;
  }

  /** What lies on the ground is painted as rounded sticks. */
  private clutterAt(
    x: number,
    y: number,
    isOnCard: boolean,
  ): { colour: Rgb; nx: number; ny: number; nz: number } | null {
    for (const { parts, colour, isOnCard: isOver = false } of this.scene.clutter ?? []) {
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
    const shine = glare.strength * Math.exp(-(off ** 4));
    for (const channel of [0, 1, 2] as const)
      this.colour[channel] = this.colour[channel] + shine / this.scene.exposure;
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

  private overCard(x: number, y: number, levelMm: number): Rgb | null {
    const placed = this.scene.card;
    if (!placed || !this.card || Math.abs(placed.zMm - levelMm) > 2) return null;
    const [u, v] = this.cardPlace(x, y);
    return u < 0 || v < 0 || u >= CARD_MM.width || v >= CARD_MM.height
      ? null
      : sampleTexture(this.card, u, v);
  }

  private shadePlate(plate: Plate, side: 0 | 1 | 2, x: number, y: number, z: number): void {
    const banded = plate.band !== null && side === 0 && z < BAND_MM;
    const colour = banded && plate.band ? plate.band : plate.colour;
    const normal: Vector = side === 0 ? [1, 0, 0] : side === 1 ? [0, 1, 0] : [0, 0, 1];
    const lit = side === 2 || this.reachesSun(x + normal[0], y + normal[1], z) ? 1 : 0;
    this.light(colour, normal[0], normal[1], normal[2], lit);
  }

  private shadeBody(x: number, y: number, dx: number, dy: number, dz: number): void {
    const { relief } = this;
    const gap = 1.4;
    const sx = (relief.heightAt(x + gap, y) - relief.heightAt(x - gap, y)) / (2 * gap);
    const sy = (relief.heightAt(x, y + gap) - relief.heightAt(x, y - gap)) / (2 * gap);
    const steep = 1 / Math.hypot(clamp(sx, -3, 3), clamp(sy, -3, 3), 1);
    const [nx, ny, nz] = [-clamp(sx, -3, 3) * steep, -clamp(sy, -3, 3) * steep, steep];
    const { colour, cover, gloss } = this.reliefColour(x, y);
    const under = cover < 1 && this.onSlab(x, y) ? sampleTexture(this.face, x, y) : colour;
    const share = clamp(cover, 0, 1);
    const blended: Rgb = [
      colour[0] * share + under[0] * (1 - share),
      colour[1] * share + under[1] * (1 - share),
      colour[2] * share + under[2] * (1 - share),
    ];
    const sunlit = this.sunlitAt(x, y);
    this.light(blended, nx, ny, nz, sunlit);
    // The wet skin mirrors the sun.
    const { sun, sunStrength } = this.scene.light;
    const away = Math.hypot(dx, dy, dz);
    const hx = sun[0] - dx / away;
    const hy = sun[1] - dy / away;
    const hz = sun[2] - dz / away;
    const half = Math.max(0, (nx * hx + ny * hy + nz * hz) / Math.hypot(hx, hy, hz));
    const shine = gloss * sunStrength * sunlit * 170 * half ** 60 + gloss * 14 * half ** 8;
    this.colour[0] += shine;
    this.colour[1] += shine;
    this.colour[2] += shine;
  }

  private reliefColour(x: number, y: number): { colour: Rgb; cover: number; gloss: number } {
    const { relief } = this;
    const u = clamp((x - relief.x0Mm) * relief.cellsPerMm - 0.5, 0, relief.columns - 2);
    const v = clamp((y - relief.y0Mm) * relief.cellsPerMm - 0.5, 0, relief.rows - 2);
    const column = Math.floor(u);
    const row = Math.floor(v);
    const fu = u - column;
    const fv = v - row;
    let [r, g, b, cover, gloss, weight] = [0, 0, 0, 0, 0, 0];
    for (let corner = 0; corner < 4; corner++) {
      const cell = (row + (corner >> 1)) * relief.columns + column + (corner & 1);
      const share = ((corner & 1) === 1 ? fu : 1 - fu) * (corner >> 1 === 1 ? fv : 1 - fv);
      const covered = relief.cover[cell] as number;
      if (covered === 0) continue;
      r += share * (relief.colour[cell * 3] as number);
      g += share * (relief.colour[cell * 3 + 1] as number);
      b += share * (relief.colour[cell * 3 + 2] as number);
      cover += share * covered;
      gloss += share * (relief.gloss[cell] as number);
      weight += share;
    }
    if (weight === 0) return { colour: [90, 90, 70], cover: 1, gloss: 0 };
    return { colour: [r / weight, g / weight, b / weight], cover: cover / weight, gloss: gloss / weight };
  }
}

interface Drops {
  at: (x: number, y: number) => { nx: number; ny: number; dim: number } | null;
}

/** Round drops strewn over the face, found again by a grid of 10 mm. */
function layDrops(wet: Wet, lengthMm: number, widthMm: number): Drops {
  const dice = rollDice(wet.seed);
  const grid = new Map<number, { x: number; y: number; r: number }[]>();
  const key = (x: number, y: number): number => Math.floor(x / 10) * 1000 + Math.floor(y / 10);
  for (let i = 0; i < wet.drops; i++) {
    const drop = {
      x: dice.between(0, lengthMm),
      y: dice.between(0, widthMm),
      r: 0.6 + 2.6 * dice.next() ** 3,
    };
    for (const ox of [-drop.r, drop.r])
      for (const oy of [-drop.r, drop.r]) {
        const k = key(drop.x + ox, drop.y + oy);
        const list = grid.get(k) ?? [];
        if (!list.includes(drop)) grid.set(k, [...list, drop]);
      }
  }
  return {
    at: (x, y) => {
      for (const drop of grid.get(key(x, y)) ?? []) {
        const dx = (x - drop.x) / drop.r;
        const dy = (y - drop.y) / drop.r;
        const off = Math.hypot(dx, dy);
        if (off < 1) return { nx: 0.7 * dx, ny: 0.7 * dy, dim: 0.92 - 0.25 * off ** 4 };
      }
      return null;
    },
  };
}

/** The colour last sampled, overwritten by the next: millions of samples a picture would keep the collector busy. */
const sampled: [number, number, number] = [0, 0, 0];

function sampleTexture(texture: Texture, xMm: number, yMm: number): Rgb {
  const u = clamp(xMm * texture.pxPerMm - 0.5, 0, texture.widthPx - 1.001);
  const v = clamp(yMm * texture.pxPerMm - 0.5, 0, texture.heightPx - 1.001);
  const column = Math.floor(u);
  const row = Math.floor(v);
  const { data } = texture;
  const at = (row * texture.widthPx + column) * 3;
  const below = at + texture.widthPx * 3;
  const right = u - column;
  const low = v - row;
  const a = (1 - right) * (1 - low);
  const b = right * (1 - low);
  const c = (1 - right) * low;
  const d = right * low;
  for (let channel = 0; channel < 3; channel++) {
    sampled[channel as 0 | 1 | 2] =
      a * (data[at + channel] as number) +
      b * (data[at + 3 + channel] as number) +
      c * (data[below + channel] as number) +
      d * (data[below + 3 + channel] as number);
  }
  return sampled;
}

/** Mean over five by five cells: the sun is a disc, so shadows have soft edges. */
function blur(source: Float32Array, columns: number, rows: number): Float32Array {
  const reach = 2;
  const across = new Float32Array(source.length);
  const out = new Float32Array(source.length);
  const pass = (
    from: Float32Array,
    to: Float32Array,
    stride: number,
    length: number,
    lines: number,
    lineStride: number,
  ): void => {
    for (let line = 0; line < lines; line++) {
      for (let i = 0; i < length; i++) {
        let sum = 0;
        for (let k = -reach; k <= reach; k++)
          sum += from[line * lineStride + clamp(i + k, 0, length - 1) * stride] as number;
        to[line * lineStride + i * stride] = sum / (2 * reach + 1);
      }
    }
  };
  pass(source, across, 1, columns, rows, columns);
  pass(across, out, columns, rows, columns, 1);
  return out;
}
