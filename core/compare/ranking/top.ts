/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices inside the heap, in the inner loop */
/** The best few of many: a heap with the worst of them on top, so that most candidates cost one comparison. */
export class Top<T> {
  private readonly heap: T[] = [];
  /** @param before whether the first stands before the second in the ranking */
  constructor(
    private readonly size: number,
    private readonly before: (a: T, b: T) => boolean
  ) {}

  /** The last that is still in, once there are enough; undefined while everything is. */
  get last(): T | undefined {
    return this.heap.length < this.size ? undefined : this.heap[0];
  }

  add(item: T): void {
    const { heap, before } = this;
    if (heap.length < this.size) {
      heap.push(item);
      let at = heap.length - 1;
      while (at > 0) {
        const parent = (at - 1) >> 1;
        if (!before(heap[parent]!, heap[at]!)) break;
        [heap[parent], heap[at]] = [heap[at]!, heap[parent]!];
        at = parent;
      }
      return;
    }
    if (this.size === 0 || !before(item, heap[0]!)) return;
    heap[0] = item;
    let at = 0;
    for (;;) {
      const left = 2 * at + 1;
      if (left >= heap.length) break;
      const right = left + 1;
      const worse = right < heap.length && before(heap[left]!, heap[right]!) ? right : left;
      if (!before(heap[at]!, heap[worse]!)) break;
      [heap[at], heap[worse]] = [heap[worse]!, heap[at]!];
      at = worse;
    }
  }

  /** What is in, best first. */
  sorted(): T[] {
    return [...this.heap].sort((a, b) => (this.before(a, b) ? -1 : this.before(b, a) ? 1 : 0));
  }
}
