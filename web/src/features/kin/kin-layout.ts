import { Graph, layout } from '@dagrejs/dagre';
import type { KinNodeView } from '@karyotome/contract';

export interface PlacedAnimal {
  readonly animal: KinNodeView;
  /** The middle of its symbol. */
  readonly x: number;
  readonly y: number;
}

/** A mating: a line between the parents, and from its middle down to their young. */
export interface PlacedFamily {
  readonly key: string;
  readonly parents: readonly string[];
  readonly young: readonly string[];
  /** Paths for the parents' ends, by parent id. */
  readonly x: number;
  readonly y: number;
  /** The parents share an ancestor in the picture: the published symbol is a double line. */
  readonly related: boolean;
  /** Below 1 where the sire is only one of several candidates. */
  readonly p: number;
}

export interface KinLayout {
  readonly width: number;
  readonly height: number;
  readonly animals: readonly PlacedAnimal[];
  readonly families: readonly PlacedFamily[];
}

export const SYMBOL = 30;
const NODE = { width: 104, height: 84 };

/** Candidates less likely than this are not drawn: a line for each would hide the likely ones. */
const DRAWN_FROM = 0.005;

/**
 * Places animals by generation with a layered graph layout (dagre: Gansner et al. 1993, IEEE Trans. Software Eng. 19), each
 * mating as a small node between its parents and its young.
 */
export function layOutKin(animals: readonly KinNodeView[]): KinLayout {
  const graph = new Graph();
  graph.setGraph({ rankdir: 'TB', nodesep: 14, ranksep: 26, marginx: 24, marginy: 24 });
  graph.setDefaultEdgeLabel(() => ({}));
  const shown = new Map(animals.map((animal) => [animal.id, animal]));
  for (const { id } of animals) graph.setNode(id, { ...NODE });
  const families = new Map<string, { parents: string[]; young: string[]; p: number }>();
  for (const animal of animals) {
    const sires = animal.sires.filter(({ id, p }) => shown.has(id) && p >= DRAWN_FROM);
    const dam = animal.dam !== null && shown.has(animal.dam) ? animal.dam : null;
    for (const sire of sires.length > 0 ? sires : [null]) {
      const parents = [...(dam ? [dam] : []), ...(sire ? [sire.id] : [])];
      if (parents.length === 0) continue;
      const p = sire ? Math.round(sire.p * 1000) / 1000 : 1;
      const key = `${parents.join('+')}@${p}`;
      const family = families.get(key) ?? { parents, young: [], p };
      family.young.push(animal.id);
      families.set(key, family);
    }
  }
  for (const [key, { parents, young }] of families) {
    graph.setNode(key, { width: 8, height: 8 });
    for (const parent of parents) graph.setEdge(parent, key);
    for (const child of young) graph.setEdge(key, child);
  }
  layout(graph);
  const at = (id: string): { x: number; y: number } => graph.node(id) as { x: number; y: number };
  const { width = 0, height = 0 } = graph.graph() as { width?: number; height?: number };
  return {
    width,
    height,
    animals: animals.map((animal) => ({ animal, x: at(animal.id).x, y: at(animal.id).y - 20 })),
    families: [...families].map(([key, { parents, young, p }]) => ({
      key,
      parents,
      young,
      p,
      x: at(key).x,
      y: at(key).y,
      related: parents.length === 2 && shareAncestor(shown, parents[0]!, parents[1]!),
    })),
  };
}

function ancestorsOf(shown: ReadonlyMap<string, KinNodeView>, id: string): Set<string> {
  const found = new Set<string>();
  const queue = [id];
  for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
    if (found.has(next)) continue;
    found.add(next);
    const animal = shown.get(next);
    if (!animal) continue;
    queue.push(
      ...(animal.dam ? [animal.dam] : []),
      ...animal.sires.filter(({ p }) => p >= 0.5).map((s) => s.id),
    );
  }
  return found;
}

function shareAncestor(shown: ReadonlyMap<string, KinNodeView>, a: string, b: string): boolean {
  const ofA = ancestorsOf(shown, a);
  return [...ancestorsOf(shown, b)].some((id) => ofA.has(id));
}

/** The animals on the shortest ways from a claim's animal to the animals its records are of. */
export function evidencePath(
  animals: readonly KinNodeView[],
  proband: string,
  evidence: readonly string[],
): Set<string> {
  const links = new Map<string, string[]>();
  const link = (a: string, b: string): void => void links.set(a, [...(links.get(a) ?? []), b]);
  for (const { id, dam, sires } of animals) {
    for (const parent of [
      ...(dam ? [dam] : []),
      ...sires.filter(({ p }) => p >= DRAWN_FROM).map((s) => s.id),
    ]) {
      link(id, parent);
      link(parent, id);
    }
  }
  const before = new Map<string, string | null>([[proband, null]]);
  for (const id of before.keys()) {
    for (const next of links.get(id) ?? []) if (!before.has(next)) before.set(next, id);
  }
  const path = new Set<string>();
  for (const one of evidence) {
    for (let id: string | null | undefined = one; id != null && before.has(id); id = before.get(id))
      path.add(id);
  }
  return path;
}
