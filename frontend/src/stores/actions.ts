import { defineStore } from 'pinia';
import { computed, nextTick, ref } from 'vue';

import type { Command, Node } from '@/api/types';
import type { Fields } from '@/marks/commands';
import type { ActionName } from '@/marks/keys';
import { ACTION_NAMES, ACTION_WORDS } from '@/marks/keys';
import { areAway, childrenOf, holds, kindOf, paintOf } from '@/marks/kinds';
import { matrixOf, turnAbout } from '@/marks/matrix';
import type { Point } from '@/marks/numbers';
import { ROLES } from '@/marks/roles';
import { useClipboard } from '@/stores/clipboard';
import { useCorners } from '@/stores/corners';
import { newId, useDrawing } from '@/stores/drawing';
import { useNodes } from '@/stores/nodes';
import { useNotices } from '@/stores/notices';
import { useRegions } from '@/stores/regions';
import type { Row } from '@/stores/selection';
import { useSelection } from '@/stores/selection';
import { useSimplifying } from '@/stores/simplifying';
import { useStyle } from '@/stores/style';
import { useTwins } from '@/stores/twins';
import { useTyping } from '@/stores/typing';
import { useView } from '@/stores/view';

/** What can be done with the selection beside outcomes, one entry a command. */
export interface Action {
  word: string;
  /** As ``KeyboardEvent.key``, with ``Shift+`` or ``Ctrl+`` before it where held; or none. */
  key: string;
  /** Whether it makes sense now. */
  can(): boolean;
  run(): unknown;
}

/** The last move or turn, to be done again on a fresh copy. */
interface Last {
  ids: string[];
  by: NonNullable<Extract<Command, { kind: 'duplicate' }>['by']>;
  /** Whether it was turned by keys: turns that follow each other are one. */
  turned?: boolean;
}

export const useActions = defineStore('actions', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  const style = useStyle();
  const clipboard = useClipboard();
  const regions = useRegions();
  const corners = useCorners();
  const nodes = useNodes();
  const simplifying = useSimplifying();
  const typing = useTyping();
  const twins = useTwins();
  const notices = useNotices();
  const last = ref<Last | null>(null);
  /** Copies that lie on what they were made of, as long as they have not been moved. */
  const onSources = ref('');

  const ids = () => [...selection.ids];
  const any = () => selection.ids.length > 0;
  const several = () => selection.ids.length > 1;
  const every = (test: (row: Row) => boolean) => any() && selection.selected.every(test);
  const run = (command: Command) => drawing.run(command);
  const act = drawing.do;

  /** The middle of the box round the selection. */
  function middle(): Point {
    const { x0, y0, x1, y1 } = selection.bounds!;
    return { x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
  }

  /** Remembers a move that is done, for *again*; ``seed`` names copies that it made. */
  function remember(by: Last['by'], moved: string[], seed: string | null = null): void {
    onSources.value = '';
    const copies = seed ? selection.copiesOf(seed) : moved;
    last.value = { ids: copies, by };
    if (seed) void pickCopies(copies);
  }

  /** Selects copies; what the others were turned about these are turned about too. */
  async function pickCopies(copies: readonly string[]): Promise<void> {
    const { pivot } = view;
    selection.pick(...copies);
    await nextTick();
    view.pivot = pivot;
  }

  /** Leaves copies, mapped; answers the seed that they were made under, or null. */
  async function copied(sources: string[], by: Last['by']): Promise<string | null> {
    const seed = newId();
    return (await act('duplicate', { ids: sources, seed, by })) ? seed : null;
  }

  async function duplicate(): Promise<void> {
    const seed = await copied(ids(), {});
    if (!seed) return;
    await pickCopies(selection.copiesOf(seed));
    onSources.value = selection.ids.join();
  }

  /** What *again* has made one after the other, of which shapes, and how. */
  let series: { how: string; first: string[]; copies: string[]; last: string[] } | null = null;

  async function again(): Promise<void> {
    if (!last.value) return;
    const { by } = last.value;
    const of = any() ? ids() : last.value.ids;
    const how = JSON.stringify(by);
    const goesOn = series && series.how === how && series.last.join() === of.join();
    const seed = await copied(of, by);
    if (!seed) return;
    remember(by, [], seed);
    const copies = selection.copiesOf(seed);
    const { first, copies: earlier } = goesOn ? series! : { first: of, copies: [] };
    series = { how, first, copies: [...earlier, ...copies], last: copies };
    offerRepeat(by, first, series.copies);
  }

  /** After three times the same, a spin or row can take its place. */
  function offerRepeat(by: Last['by'], first: string[], copies: string[]): void {
    const count = copies.length / first.length + 1;
    const found = count === 4 ? repeatOfMap(by, count) : null;
    if (!found) return;
    const { layout, name, about, parameters } = found;
    notices.say('Three times the same.', {
      label: `Make it a ${name.toLowerCase()}`,
      run: async () => {
        const id = newId();
        const fields = { ids: first, id, name, layout, ...about, parameters };
        if (await act('make-repeat', { ...fields, instead_of: copies })) selection.pick(id);
      },
    });
  }

  async function group(): Promise<void> {
    const id = newId();
    if (await run({ kind: 'group', ids: ids(), id, name: 'Group' })) selection.pick(id);
  }

  async function ungroup(): Promise<void> {
    const inner = selection.selected.flatMap((row) =>
      row.node.kind === 'group' ? row.node.nodes.map((node) => node.id) : [],
    );
    if (await run({ kind: 'ungroup', ids: ids() })) selection.pick(...inner);
  }

  /** How far a fresh twin lies from the one that it was made of, in its own widths. */
  const ASIDE = 1.15;

  async function makeTwin(): Promise<void> {
    const [id, source, seed] = [newId(), newId(), newId()];
    const { x0, x1 } = selection.bounds!;
    const by = { e: view.rounded((x1 - x0) * ASIDE) };
    if (await act('make-twin', { ids: ids(), id, source, seed, by }))
      selection.pick(...selection.copiesOf(seed));
  }

  async function freeTwins(): Promise<void> {
    await act('free-twins', { ids: ids(), seed: newId() });
  }

  /** Whether all that is selected are shapes of a document: no pictures, and no copies. */
  const repeatable = () => every((row) => row.node.kind !== 'image' && !twins.isCopy(row));
  const repeat = (layout: 'spin' | 'row' | 'mirror', name: string) => async () => {
    const id = newId();
    if (await act('make-repeat', { ids: ids(), id, name, layout })) selection.pick(id);
  };

  const isTwin = (row: Row) => row.node.kind === 'twin' && !twins.isCopy(row);
  /** Whether a shape has paint of its own, or what is hidden, in the twin that it is or lies in. */
  const hasOwn = (row: Row) => twins.ownOf(row).length > 0;

  function allTwins(): void {
    const sources = new Set(selection.selected.flatMap((row) => twins.sourceOf(row) ?? []));
    selection.pick(...[...sources].flatMap((key) => twins.of(key).map((row) => row.node.id)));
  }

  const arrange = (to: 'raise' | 'lower' | 'top' | 'bottom') => () =>
    run({ kind: 'arrange', ids: ids(), to });

  /** Turns on what some lack, or off what all have. */
  function toggle(key: 'locked' | 'guide' | 'visible', on: boolean): Promise<boolean> {
    const all = selection.selected.every((row) => (row.node[key] ?? key === 'visible') === on);
    return run(twins.here('set-state', { ids: ids(), [key]: all ? !on : on }));
  }

  function mirror(across: 'left-right' | 'top-bottom'): Promise<boolean> {
    const about = several() ? 'selection' : 'own';
    return act('mirror', { ids: ids(), across, about });
  }

  /** A copy mirrored across the plate's middle: the other half. */
  async function otherHalf(): Promise<void> {
    const seed = newId();
    const how = { across: 'left-right', about: 'plate', seed } as const;
    if (await act('mirror', { ids: ids(), ...how })) selection.pick(...selection.copiesOf(seed));
  }

  /** Mirrors the others across the one line that is selected with them. */
  function mirrorAcrossLine(): Promise<boolean> {
    const line = selection.selected.find((row) => row.node.kind === 'line')!.node.id;
    const others = ids().filter((key) => key !== line);
    return act('mirror', { ids: others, line });
  }

  /** Turns the selection about its turning point, or its middle; answers how. */
  async function turnAlone(degrees: number): Promise<Last['by'] | null> {
    const by = turnAbout(view.pivot ?? middle(), degrees);
    return (await run({ kind: 'transform', ids: ids(), by })) ? by : null;
  }

  /** The same by keys: one turn after another counts as one, which *again* repeats whole. */
  async function turn(degrees: number): Promise<void> {
    const moved = ids();
    const before = last.value;
    const by = await turnAlone(degrees);
    if (!by) return;
    const goesOn = before?.turned && before.ids.join() === moved.join();
    last.value = { ids: moved, by: goesOn ? after(by, before.by) : by, turned: true };
  }

  function selectLike(same: (node: Node) => unknown): void {
    const model = selection.selected.map((row) => JSON.stringify(same(row.node)));
    const alike = selection.beside.filter((row) => model.includes(JSON.stringify(same(row.node))));
    selection.pick(...alike.map((row) => row.node.id).reverse());
  }

  function takePaint(): void {
    style.takeFrom(paintOf(selection.only!.node));
  }

  function copyPaint(): Promise<boolean> {
    const [source, ...others] = ids();
    return run({ kind: 'copy-paint', source: source!, ids: others });
  }

  /** Gives members the role after the one they have. */
  async function nextRole(rows: readonly Row[]): Promise<void> {
    for (const { node, parent, role } of rows) {
      if (!role || !parent) continue;
      const next = ROLES[(ROLES.indexOf(role) + 1) % ROLES.length]!;
      await run({ kind: 'set-role', compound: parent, member: node.id, role: next });
    }
  }

  /** Whether all that is selected shows only within another shape. */
  const inClip = () =>
    every((row) => {
      const above = row.parent ? selection.rowById.get(row.parent)!.node : null;
      return above?.kind === 'clip' && above.holder.id !== row.node.id;
    });

  /** Puts all but the lowest of the selected shapes inside that one. */
  async function clip(): Promise<void> {
    const order = selection.rows
      .map((row) => row.node.id)
      .filter((key) => selection.chosen.has(key));
    const holder = order.pop()!;
    const id = newId();
    const already = selection.rowById.get(holder)!.node.kind === 'clip';
    if (await run({ kind: 'put-inside', ids: order, holder, id }))
      selection.pick(already ? holder : id);
  }

  async function takeOut(): Promise<void> {
    const only = selection.only?.node;
    const out = only?.kind === 'clip' ? only.nodes.map((node) => node.id) : ids();
    if (await run({ kind: 'take-out', ids: out })) selection.pick(...out);
  }

  const showAll = () =>
    act('set-state', {
      ids: selection.rows.filter((row) => !row.node.visible).map((row) => row.node.id),
      visible: true,
    });

  /** Whether all that is selected has an outline that can be refined, or shapes that have. */
  const refinable = () => every((row) => kindOf(row.node).refined || holds(row.node));
  const refine = (refinement: Fields<'refine'>['refinement']) =>
    act('refine', { ids: ids(), refinement });

  /** Makes shapes of lines; of what had no fill they take the place. */
  async function lineToOutline(): Promise<void> {
    const seed = newId();
    if (await act('line-to-outline', { ids: ids(), seed }))
      selection.pick(...selection.copiesOf(seed));
  }

  const hasPath = (node: Node): boolean =>
    node.kind === 'path' || childrenOf(node).some((child) => hasPath(child.node));
  const isPath = () => selection.only?.node.kind === 'path';
  /** Whether some of what is selected is open: it has contours that bound nothing. */
  const hasEnds = () => selection.figures.some(({ area, path }) => area !== null && path !== '');

  /** The one text that is selected, if it is. */
  function aText() {
    const row = selection.only;
    return row?.node.kind === 'text' && !row.held ? row.node : null;
  }

  /** Whether it stands on a line; null for what cannot. */
  function isOnLine(node: Node): boolean | null {
    if (node.kind === 'text') return node.course?.kind === 'line';
    return node.kind === 'repeat' && node.layout.kind !== 'mirror' ? Boolean(node.line) : null;
  }

  /** A text or a repeat that stands on no line yet, and the shape selected with it. */
  function forLine(): { id: string; line: string } | null {
    const [one, two] = selection.selected.map(({ node }) => node);
    if (!one || !two || selection.selected.length > 2) return null;
    const [on, line] = isOnLine(one) === false ? [one, two] : [two, one];
    if (isOnLine(on) !== false || line.kind === 'image') return null;
    return { id: on.id, line: line.id };
  }

  async function putOnLine(): Promise<void> {
    const { id, line } = forLine()!;
    if (await act('put-on-line', { id, line })) selection.pick(id);
  }

  const standing = () =>
    selection.only && !selection.only.held && isOnLine(selection.only.node)
      ? selection.only.node.id
      : null;

  const isPiece = (row: Row) => row.node.kind === 'piece';

  const oneLine = () =>
    several() && selection.selected.filter((row) => row.node.kind === 'line').length === 1;

  const doing: Record<ActionName, Pick<Action, 'can' | 'run'>> = {
    copy: { can: any, run: clipboard.copy },
    cutOut: { can: any, run: clipboard.cut },
    import: {
      can: () => true,
      run: clipboard.chooseFiles,
    },
    duplicate: { can: any, run: duplicate },
    again: { can: () => last.value !== null, run: again },
    remove: {
      can: any,
      run: () => run({ kind: 'remove', ids: ids() }),
    },
    group: { can: any, run: group },
    makeTwin: { can: repeatable, run: makeTwin },
    spin: { can: repeatable, run: repeat('spin', 'Spin') },
    row: { can: repeatable, run: repeat('row', 'Row') },
    mirrorLive: { can: repeatable, run: repeat('mirror', 'Mirror') },
    bringBack: {
      can: () => selection.only?.node.kind === 'repeat' && selection.only.node.left_out.length > 0,
      run: () => act('bring-back', { id: selection.only!.node.id }),
    },
    allTwins: { can: () => selection.selected.some((row) => twins.sourceOf(row)), run: allTwins },
    followAgain: {
      can: () => every(hasOwn),
      run: () => act('follow-again', { ids: ids() }),
    },
    freeTwins: { can: () => every(isTwin), run: freeTwins },
    ungroup: {
      can: () => every((row) => row.node.kind === 'group'),
      run: ungroup,
    },
    type: { can: () => aText() !== null, run: () => typing.begin(aText()!.id) },
    spaceLetters: {
      can: () => aText() !== null && !typing.spacing,
      run: () => typing.begin(aText()!.id, 'spacing'),
    },
    putOnLine: { can: () => forLine() !== null, run: putOnLine },
    takeOffLine: {
      can: () => standing() !== null,
      run: () => act('take-off-line', { id: standing()! }),
    },
    breakIntoLetters: {
      can: () => aText() !== null,
      run: () => act('break-into-letters', { id: aText()!.id }),
    },
    focus: {
      can: () => selection.only !== null && childrenOf(selection.only.node).length > 0,
      run: () => selection.enter(selection.only!.node.id),
    },
    regions: {
      can: () => regions.possible,
      run: regions.begin,
    },
    clip: {
      can: () => selection.combinable.length > 1 && !inClip() && !every(isPiece),
      run: clip,
    },
    takeOut: {
      can: () => inClip() || selection.only?.node.kind === 'clip',
      run: takeOut,
    },
    nodes: {
      can: () => nodes.possible && !nodes.open && (several() || corners.open || isPath()),
      run: () => (corners.leave(), nodes.begin()),
    },
    corners: {
      can: () => corners.possible && !corners.open,
      run: () => (nodes.leave(), corners.begin()),
    },
    simplify: {
      can: () => any() && selection.selected.some((row) => !row.held && hasPath(row.node)),
      run: () => (nodes.leave(), corners.leave(), simplifying.begin()),
    },
    joinEnds: { can: () => nodes.possible && hasEnds(), run: nodes.joinEnds },
    completeHalf: {
      can: () => nodes.possible && !several() && hasEnds(),
      run: () => run({ kind: 'complete-half', id: selection.only!.node.id }),
    },
    grow: { can: refinable, run: () => refine({ kind: 'offset', distance: 4 }) },
    band: { can: refinable, run: () => refine({ kind: 'band', width: 4 }) },
    lineToOutline: {
      can: () => every((row) => Boolean(row.node.look.lines.length && kindOf(row.node).refined)),
      run: lineToOutline,
    },
    settle: {
      can: () => every((row) => !kindOf(row.node).plain || row.node.refinements.length > 0),
      run: () => run({ kind: 'settle', ids: ids() }),
    },
    allHome: {
      can: () => Boolean(selection.wholeInHand && areAway(selection.wholeInHand)),
      run: () => run({ kind: 'all-home', id: selection.wholeInHand!.id }),
    },
    unbundle: {
      can: () => selection.only?.node.kind === 'path' || selection.only?.node.kind === 'compound',
      run: () => run({ kind: 'unbundle', id: selection.only!.node.id }),
    },
    role: {
      can: () => every((row) => row.role !== null),
      run: () => nextRole(selection.selected),
    },
    liftOut: {
      can: () => every((row) => row.role !== null),
      run: () => act('lift-members', { ids: ids() }),
    },
    raise: { can: any, run: arrange('raise') },
    lower: { can: any, run: arrange('lower') },
    top: { can: any, run: arrange('top') },
    bottom: { can: any, run: arrange('bottom') },
    hide: { can: any, run: () => toggle('visible', false) },
    showAll: {
      can: () => selection.rows.some((row) => row.node.visible === false),
      run: showAll,
    },
    lock: { can: any, run: () => toggle('locked', true) },
    guide: { can: any, run: () => toggle('guide', true) },
    mirrorX: { can: any, run: () => mirror('left-right') },
    mirrorY: {
      can: any,
      run: () => mirror('top-bottom'),
    },
    mirrorPlate: {
      can: any,
      run: () => act('mirror', { ids: ids(), across: 'left-right', about: 'plate' }),
    },
    otherHalf: { can: any, run: otherHalf },
    mirrorLine: { can: oneLine, run: mirrorAcrossLine },
    turn: { can: any, run: () => turn(15) },
    turnBack: { can: any, run: () => turn(-15) },
    quarter: { can: any, run: () => turn(90) },
    quarterBack: { can: any, run: () => turn(-90) },
    sameCentre: {
      can: several,
      run: () => run({ kind: 'same-centre', ids: ids() }),
    },
    sameSize: {
      can: several,
      run: () => run({ kind: 'same-size', ids: ids() }),
    },
    sameAngle: {
      can: several,
      run: () => run({ kind: 'same-angle', ids: ids() }),
    },
    copyPaint: { can: several, run: copyPaint },
    takePaint: {
      can: () => selection.only !== null,
      run: takePaint,
    },
    likeFill: {
      can: any,
      run: () => selectLike((node) => node.look.fill),
    },
    likeLine: {
      can: any,
      run: () => selectLike((node) => node.look.lines),
    },
    likeKind: {
      can: any,
      run: () => selectLike((node) => node.kind),
    },
  };
  const actions = Object.fromEntries(
    ACTION_NAMES.map((name) => {
      // Whoever asks whether it makes sense is told anew only where the answer is another.
      const makesSense = computed(doing[name].can);
      return [name, { ...ACTION_WORDS[name], ...doing[name], can: () => makesSense.value }];
    }),
  ) as Record<ActionName, Action>;

  /** Does what a key stands for; answers whether it stands for something now. */
  function byKey(key: string): boolean {
    const action = Object.values(actions).find((each) => each.key === key && each.can());
    if (!action) return false;
    void action.run();
    return true;
  }

  return { actions, onSources, byKey, remember, turnAlone, nextRole };
});

/** A repeat that is to be made: its layout, and where it is. */
interface Repeated {
  layout: 'spin' | 'row';
  name: string;
  about: { x?: number; y?: number };
  parameters: Record<string, number>;
}

/** How shapes are repeated that are mapped again and again, if they are as live ones can be. */
function repeatOfMap(by: Last['by'], count: number): Repeated | null {
  const { a, b, c, d, e, f } = matrixOf(by);
  const same = (one: number, two: number) => Math.abs(one - two) < 1e-9;
  if (same(a, 1) && same(d, 1) && same(b, 0) && same(c, 0)) {
    if (same(e, 0) === same(f, 0)) return null;
    const level = same(f, 0);
    const parameters = { columns: level ? count : 1, rows: level ? 1 : count, dx: e, dy: f };
    return { layout: 'row', name: 'Row', about: {}, parameters };
  }
  if (!same(a, d) || !same(b, -c) || !same(a * a + b * b, 1)) return null;
  const step = (Math.atan2(b, a) * 180) / Math.PI;
  // The point that stays.
  const spread = 2 - 2 * a;
  const x = ((1 - a) * e - b * f) / spread;
  const y = (b * e + (1 - a) * f) / spread;
  const parameters = { count, whole_deg: step * (count - 1) };
  // Round more than once the last copies lie on the first.
  if (Math.abs(parameters.whole_deg) > 359) return null;
  return { layout: 'spin', name: 'Spin', about: { x, y }, parameters };
}

/** The map that does one map after another. */
function after(next: Last['by'], first: Last['by']): Last['by'] {
  const { a, b, c, d, e, f } = matrixOf(next).multiply(matrixOf(first));
  return { a, b, c, d, e, f };
}
