// The choice of the nearest of what can be snapped to. The points come from the core.
import type { Box, SnapTargets } from '@/api/types';
import type { Point } from '@/marks/numbers';
import type { SnapSwitch } from '@/stores/snaps';

/** Why something snapped, and where to show it. */
export interface Mark {
  from: Point;
  to: Point;
  says: string;
}

export interface Snapped {
  at: Point;
  marks: Mark[];
}

/** All there is to snap to while one gesture lasts. */
export interface Surroundings {
  targets: SnapTargets | null;
  /** Boxes, names and whether they are guides, of the shapes beside what is moved. */
  shapes: { id: string; name: string; guide: boolean; bounds: Box }[];
  plate: { width: number; height: number };
  grid: number;
  on: Record<SnapSwitch, boolean>;
  /** How near is near, in the plate's units. */
  reach: number;
}

interface Spot extends Point {
  says: string;
}

/** A value along one axis that edges or middles can come to lie on. */
interface Level {
  value: number;
  says: string;
  /** Where the thing is that lies there, along the other axis. */
  beside: number;
}

interface Found {
  by: number;
  level: Level;
}

interface Circle extends Point {
  r: number;
  name: string;
}

const MOST_OWN_POINTS = 48;
const CENTRED = 0.3;
const WORDS = {
  centre: 'centre of',
  node: 'node of',
  midpoint: 'midpoint of',
  quadrant: 'quadrant point of',
  crossing: 'crossing of',
} as const;

/** What gestures ask: where a point, or what is in hand, comes to lie. */
export interface Snapping {
  point(at: Point): Snapped;
  move(by: Point): Snapped;
}

export class Snapper implements Snapping {
  private readonly spots: Spot[] = [];
  private readonly xs: Level[] = [];
  private readonly ys: Level[] = [];
  private readonly circles: Circle[] = [];
  private readonly own: Point[] = [];
  private readonly ownCircles: Circle[] = [];

  /** ``moving`` are the shapes in hand with all inside them; nothing snaps to itself. */
  constructor(
    private readonly around: Surroundings,
    private readonly moving: ReadonlySet<string>,
    private readonly box: Box | null = null,
  ) {
    const { shapes, plate, on } = around;
    const byId = new Map(shapes.map((shape) => [shape.id, shape]));
    const { targets } = around;
    const usable = (id: string) => {
      const shape = byId.get(id);
      return shape && !moving.has(id) && (!shape.guide || on.guide) ? shape : null;
    };
    for (let i = 0; targets && i < targets.x.length; i++) {
      const [x, y, kind] = [targets.x[i]!, targets.y[i]!, targets.kind[i]!];
      const [one, other] = [targets.shape[i]!, targets.other[i]!];
      const id = targets.shapes[one]!;
      if (moving.has(id)) {
        if (kind !== 'crossing') this.own.push({ x, y });
        continue;
      }
      const shape = usable(id);
      if (!shape || !(on[kind] || (shape.guide && on.guide))) continue;
      if (kind === 'crossing' && !usable(targets.shapes[other]!)) continue;
      this.spots.push({ x, y, says: `${WORDS[kind]} ${shape.name}` });
      if (kind === 'centre') {
        this.xs.push({ value: x, says: `in line with ${shape.name}`, beside: y });
        this.ys.push({ value: y, says: `level with ${shape.name}`, beside: x });
      }
    }
    for (const [x, y, r, shape] of targets?.circles ?? []) {
      const id = targets!.shapes[shape]!;
      if (moving.has(id)) this.ownCircles.push({ x, y, r, name: '' });
      else if (usable(id)) this.circles.push({ x, y, r, name: byId.get(id)!.name });
    }
    if (on.edge)
      for (const shape of shapes) {
        if (!usable(shape.id)) continue;
        const { x0, y0, x1, y1 } = shape.bounds;
        for (const value of [x0, x1])
          this.xs.push({ value, says: `edge of ${shape.name}`, beside: (y0 + y1) / 2 });
        for (const value of [y0, y1])
          this.ys.push({ value, says: `edge of ${shape.name}`, beside: (x0 + x1) / 2 });
      }
    if (on.plate) {
      const { width, height } = plate;
      this.spots.push({ x: width / 2, y: height / 2, says: 'plate centre' });
      for (const [value, says] of [
        [0, 'plate edge'],
        [width / 2, 'plate centre'],
        [width, 'plate edge'],
      ] as const)
        this.xs.push({ value, says, beside: height / 2 });
      for (const [value, says] of [
        [0, 'plate edge'],
        [height / 2, 'plate centre'],
        [height, 'plate edge'],
      ] as const)
        this.ys.push({ value, says, beside: width / 2 });
    }
    this.spots.sort((a, b) => a.x - b.x);
    // Many points of one's own say no more than some of them.
    const step = Math.ceil(this.own.length / MOST_OWN_POINTS);
    if (step > 1) this.own = this.own.filter((_, i) => i % step === 0);
  }

  /** Snaps one point, as that of a shape being drawn. */
  point(at: Point): Snapped {
    const spot = this.nearestSpot(at);
    if (spot)
      return { at: { x: spot.x, y: spot.y }, marks: [{ from: spot, to: spot, says: spot.says }] };
    const x = nearestLevel(this.xs, [at.x], this.around.reach) ?? this.gridLevel([at.x]);
    const y = nearestLevel(this.ys, [at.y], this.around.reach) ?? this.gridLevel([at.y]);
    const snapped = { x: at.x + (x?.by ?? 0), y: at.y + (y?.by ?? 0) };
    return { at: snapped, marks: levelMarks(snapped, x, y) };
  }

  /** Snaps the move ``by`` of what is in hand; answers the move instead of a place. */
  move(by: Point): Snapped {
    let best: { by: Point; far: number; mark: Mark } | null = null;
    for (const own of this.own) {
      const here = { x: own.x + by.x, y: own.y + by.y };
      const spot = this.nearestSpot(here);
      if (!spot) continue;
      const centred = spot.says.startsWith('centre of') && own === this.own[0];
      // Of several that are near, centre on centre is what is most often meant.
      const far = Math.hypot(spot.x - here.x, spot.y - here.y) * (centred ? CENTRED : 1);
      if (best && far >= best.far) continue;
      const says = centred ? `same centre as ${spot.says.slice(10)}` : spot.says;
      best = {
        by: { x: spot.x - own.x, y: spot.y - own.y },
        far,
        mark: { from: spot, to: spot, says },
      };
    }
    if (best) return { at: best.by, marks: [best.mark] };
    const touch = this.around.on.tangent ? this.tangent(by) : null;
    if (touch) return touch;
    return this.levels(by);
  }

  private levels(by: Point): Snapped {
    if (!this.box) return { at: by, marks: [] };
    const { x0, y0, x1, y1 } = this.box;
    const across = [(x0 + x1) / 2 + by.x, x0 + by.x, x1 + by.x];
    const down = [(y0 + y1) / 2 + by.y, y0 + by.y, y1 + by.y];
    const { reach, on } = this.around;
    const x =
      nearestLevel(this.xs, across, reach) ??
      (on.gap ? this.equalGap('x', by) : null) ??
      this.gridLevel(across.slice(1, 2));
    const y =
      nearestLevel(this.ys, down, reach) ??
      (on.gap ? this.equalGap('y', by) : null) ??
      this.gridLevel(down.slice(1, 2));
    const at = { x: by.x + (x?.by ?? 0), y: by.y + (y?.by ?? 0) };
    const middle = { x: (x0 + x1) / 2 + at.x, y: (y0 + y1) / 2 + at.y };
    return { at, marks: levelMarks(middle, x, y) };
  }

  private nearestSpot(at: Point): Spot | null {
    const { reach } = this.around;
    let low = 0;
    let high = this.spots.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.spots[middle]!.x < at.x - reach) low = middle + 1;
      else high = middle;
    }
    let best: Spot | null = null;
    let least = reach;
    for (let i = low; i < this.spots.length && this.spots[i]!.x <= at.x + reach; i++) {
      const spot = this.spots[i]!;
      const far = Math.hypot(spot.x - at.x, spot.y - at.y);
      if (far < least) [best, least] = [spot, far];
    }
    return best;
  }

  /** A circle in hand that nearly touches another goes on until it does. */
  private tangent(by: Point): Snapped | null {
    if (this.ownCircles.length !== 1) return null;
    const mine = this.ownCircles[0]!;
    const here = { x: mine.x + by.x, y: mine.y + by.y };
    let least = this.around.reach;
    let found: Snapped | null = null;
    for (const other of this.circles) {
      const away = Math.hypot(here.x - other.x, here.y - other.y);
      if (away === 0) continue;
      for (const reach of [mine.r + other.r, Math.abs(mine.r - other.r)]) {
        const far = Math.abs(away - reach);
        if (reach === 0 || far >= least) continue;
        least = far;
        const unit = { x: (here.x - other.x) / away, y: (here.y - other.y) / away };
        const to = { x: other.x + unit.x * reach, y: other.y + unit.y * reach };
        const touch = { x: other.x + unit.x * other.r, y: other.y + unit.y * other.r };
        found = {
          at: { x: to.x - mine.x, y: to.y - mine.y },
          marks: [{ from: touch, to: touch, says: `tangent to ${other.name}` }],
        };
      }
    }
    return found;
  }

  /** Where the gap to a neighbour is the same as that between it and the next, or both sides'. */
  private equalGap(axis: 'x' | 'y', by: Point): Found | null {
    const [low, high, below, above] =
      axis === 'x' ? (['x0', 'x1', 'y0', 'y1'] as const) : (['y0', 'y1', 'x0', 'x1'] as const);
    const box = this.box!;
    const along = axis === 'x' ? by.x : by.y;
    const beside = axis === 'x' ? by.y : by.x;
    const [from, to] = [box[low] + along, box[high] + along];
    const row = this.around.shapes
      .filter(({ id }) => !this.moving.has(id))
      .map(({ bounds }) => bounds)
      .filter((b) => b[below] < box[above] + beside && b[above] > box[below] + beside);
    const before = row.filter((b) => b[high] <= from).sort((a, b) => b[high] - a[high]);
    const after = row.filter((b) => b[low] >= to).sort((a, b) => a[low] - b[low]);
    const wanted: number[] = [];
    if (before[0] && after[0])
      wanted.push((before[0][high] + after[0][low] - (to - from)) / 2 - from);
    if (before[0] && before[1])
      wanted.push(before[0][high] + (before[0][low] - before[1][high]) - from);
    if (after[0] && after[1]) wanted.push(after[0][low] - (after[1][low] - after[0][high]) - to);
    const best = wanted.sort((a, b) => Math.abs(a) - Math.abs(b))[0];
    if (best === undefined || Math.abs(best) >= this.around.reach) return null;
    const level = { value: from + best, says: 'equal gaps', beside: box[below] + beside };
    return { by: best, level };
  }

  private gridLevel(values: number[]): Found | null {
    if (!this.around.on.grid) return null;
    const { grid } = this.around;
    const value = Math.round(values[0]! / grid) * grid;
    return { by: value - values[0]!, level: { value, says: '', beside: 0 } };
  }
}

/** The level nearest to any of the values, if one is near; the first value's wins a tie. */
function nearestLevel(levels: Level[], values: number[], reach: number): Found | null {
  let least = reach;
  let found: Found | null = null;
  for (const value of values)
    for (const level of levels) {
      const far = Math.abs(level.value - value);
      if (far < least - 1e-9) [least, found] = [far, { by: level.value - value, level }];
    }
  return found;
}

/** Lines from what lies on a level to what was brought on to it. */
function levelMarks(at: Point, x: Found | null, y: Found | null): Mark[] {
  const marks: Mark[] = [];
  if (x?.level.says)
    marks.push({
      from: { x: x.level.value, y: x.level.beside },
      to: { x: x.level.value, y: at.y },
      says: x.level.says,
    });
  if (y?.level.says)
    marks.push({
      from: { x: y.level.beside, y: y.level.value },
      to: { x: at.x, y: y.level.value },
      says: y.level.says,
    });
  return marks.filter((mark) => Number.isFinite(mark.from.x + mark.from.y));
}
