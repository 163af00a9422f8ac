// What strokes of the three brushes do to the picks of a region build.
import type { PickedRegion, RegionMap, RegionPick } from '@/api/types';

export type Brush = 'keep' | 'fuse' | 'drop';

/** What became of some regions: one piece, or nothing. */
export interface Pick {
  /** Regions by their place in the map, in the order in which they were picked. */
  readonly spots: readonly number[];
  /** Regions that were picked before and cannot be found any more. */
  readonly lost: readonly PickedRegion[];
  readonly dropped: boolean;
  /** The colour chosen for the piece; null for that of the build's paint. */
  readonly fill: string | null;
}

export type Picks = readonly Pick[];

export function pickOf(picks: Picks, spot: number): Pick | undefined {
  return picks.find((pick) => pick.spots.includes(spot));
}

/** The pieces, in the order of their numbers. */
export function pieces(picks: Picks): Pick[] {
  return picks.filter((pick) => !pick.dropped);
}

function without(picks: Picks, spots: readonly number[]): Pick[] {
  return picks
    .map((pick) => ({ ...pick, spots: pick.spots.filter((spot) => !spots.includes(spot)) }))
    .filter((pick) => pick.spots.length || pick.lost.length);
}

/** Makes a region a piece of its own, or part of the rest again if it is one. */
export function keep(picks: Picks, spot: number): Picks {
  const pick = pickOf(picks, spot);
  const alone = pick && !pick.dropped && pick.spots.length === 1 && !pick.lost.length;
  const others = without(picks, [spot]);
  return alone ? others : [...others, { spots: [spot], lost: [], dropped: false, fill: null }];
}

/** Makes one piece of regions, and of the pieces that they are part of. */
export function fuse(picks: Picks, spots: readonly number[]): Picks {
  const touched = pieces(picks).filter((pick) => spots.some((spot) => pick.spots.includes(spot)));
  const all = [...new Set([...touched.flatMap((pick) => pick.spots), ...spots])];
  const [first] = touched;
  const one: Pick = {
    spots: all,
    lost: touched.flatMap((pick) => pick.lost),
    dropped: false,
    fill: first?.fill ?? null,
  };
  const place = first ? picks.indexOf(first) : picks.length;
  const before = picks.slice(0, place).filter((pick) => !touched.includes(pick));
  const after = picks.slice(place).filter((pick) => !touched.includes(pick));
  return [...without(before, all), one, ...without(after, all)];
}

/** Lets regions go; if all of them went already, they are part of the rest again. */
export function drop(picks: Picks, spots: readonly number[]): Picks {
  const gone = spots.every((spot) => pickOf(picks, spot)?.dropped);
  const others = without(picks, spots);
  if (gone) return others;
  const before = others.find((pick) => pick.dropped);
  const all: Pick = {
    spots: [...(before?.spots ?? []), ...spots],
    lost: before?.lost ?? [],
    dropped: true,
    fill: null,
  };
  return [...others.filter((pick) => pick !== before), all];
}

/** Gives the piece that a region is part of a colour; a region of the rest becomes a piece. */
export function paint(picks: Picks, spot: number, fill: string | null): Picks {
  const pick = pickOf(picks, spot);
  const kept = !pick || pick.dropped ? keep(picks, spot) : picks;
  return kept.map((each) => (each.spots.includes(spot) ? { ...each, fill } : each));
}

/** Puts a lost region of a pick on to a spot; without one it is forgotten. */
export function place(picks: Picks, pick: Pick, lost: PickedRegion, spot: number | null): Picks {
  const found = spot === null ? [] : [spot];
  const mended = {
    ...pick,
    spots: [...pick.spots, ...found],
    lost: pick.lost.filter((each) => each !== lost),
  };
  const others = picks.map((each) => (each === pick ? mended : without([each], found)[0]));
  return others.filter((each): each is Pick => Boolean(each?.spots.length || each?.lost.length));
}

/**
 * The picks of a region build, by the places of the regions that they find.
 *
 * Where regions have grown together, what two picks find belongs to the later one.
 */
export function picksOf(stored: readonly RegionPick[], found: RegionMap['found']): Picks {
  return stored
    .map((pick, i) => {
      const later = new Set(found.slice(i + 1).flat());
      const spots = found[i]!.filter((spot): spot is number => spot !== null && !later.has(spot));
      return {
        spots: [...new Set(spots)],
        lost: pick.regions.filter((_, j) => found[i]![j] === null),
        dropped: pick.dropped ?? false,
        fill: pick.fill ?? null,
      };
    })
    .filter((pick) => pick.spots.length || pick.lost.length);
}

/** The picks as the document holds them. */
export function toStored(picks: Picks, map: RegionMap): RegionPick[] {
  return picks.map((pick) => ({
    regions: [...pick.spots.map((spot) => map.spots[spot]!.pick), ...pick.lost],
    dropped: pick.dropped,
    fill: pick.fill,
  }));
}
