/* eslint-disable @typescript-eslint/no-non-null-assertion -- an index below the length of the list, in the inner loop */
/**
 * The frontier of cost against speed: what no other beats in one without losing in the other. Points stand cheapest first, and
 * each is faster than the one before it; what is equal in both stands together.
 */
export class Frontier<Ref> {
  readonly points: { cost: number; speed: number; refs: Ref[] }[] = [];

  /** Whether something at this place would be on the frontier as it is now. */
  takes(cost: number, speed: number): boolean {
    const at = this.lastUpTo(cost);
    const point = this.points[at];
    return point === undefined || point.speed < speed || (point.speed === speed && point.cost === cost);
  }

  add(cost: number, speed: number, ref: Ref): void {
    const at = this.lastUpTo(cost);
    const point = this.points[at];
    if (point && point.speed === speed && point.cost === cost) {
      point.refs.push(ref);
      return;
    }
    if (point && point.speed >= speed) return;
    // What costs as much or more and is not faster falls off.
    const from = point && point.cost === cost ? at : at + 1;
    let to = from;
    while (to < this.points.length && this.points[to]!.speed <= speed) to += 1;
    this.points.splice(from, to - from, { cost, speed, refs: [ref] });
  }

  /** Index of the dearest point that costs no more than this; -1 if every point is dearer. */
  private lastUpTo(cost: number): number {
    let low = 0;
    let high = this.points.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.points[middle]!.cost <= cost) low = middle + 1;
      else high = middle;
    }
    return low - 1;
  }
}
