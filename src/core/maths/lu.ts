/**
 * A square system with few entries, by LU without pivoting, eliminated in the order of least degree so that little fills in (Golub &
 * Van Loan 2013, 3.2; Duff, Erisman & Reid 2017, 7). For matrices that lean on their diagonal, as 1/h − J of an implicit step does.
 * Bare numbers.
 */
export class SparseLu {
  /** n × n, row by row, to be filled where entries were announced; overwritten by its factors */
  readonly a: Float64Array;
  /** Which unknown is eliminated when */
  private readonly order: Int32Array;
  /** Of each unknown as it is eliminated: the rows it still stands in, and the columns its own row still holds */
  private readonly below: readonly Int32Array[];
  private readonly right: readonly Int32Array[];
  /** Of each unknown: those eliminated before that its row holds, in their order */
  private readonly left: readonly Int32Array[];

  /** @param entries places [row, column] that may hold something; the diagonal always may. */
  constructor(
    private readonly n: number,
    entries: Iterable<readonly [row: number, column: number]>,
  ) {
    this.a = new Float64Array(n * n);
    const rows = Array.from({ length: n }, () => new Set<number>());
    const columns = Array.from({ length: n }, () => new Set<number>());
    const add = (i: number, j: number) => {
      if (i === j) return;
      (rows[i] as Set<number>).add(j);
      (columns[j] as Set<number>).add(i);
    };
    for (const [i, j] of entries) add(i, j);
    const waiting = new Set(rows.keys());
    const order: number[] = [];
    const below: number[][] = rows.map(() => []);
    const right: number[][] = rows.map(() => []);
    const left: number[][] = rows.map(() => []);
    const degree = (k: number) => (rows[k] as Set<number>).size * (columns[k] as Set<number>).size;
    while (waiting.size > 0) {
      const k = [...waiting].reduce((best, i) => (degree(i) < degree(best) ? i : best));
      waiting.delete(k);
      order.push(k);
      right[k] = [...(rows[k] as Set<number>)];
      below[k] = [...(columns[k] as Set<number>)];
      for (const i of below[k] as number[]) {
        (rows[i] as Set<number>).delete(k);
        (left[i] as number[]).push(k);
        for (const j of right[k] as number[]) add(i, j);
      }
      for (const j of right[k] as number[]) (columns[j] as Set<number>).delete(k);
    }
    this.order = Int32Array.from(order);
    [this.below, this.right, this.left] = [below, right, left].map((lists) => lists.map((l) => Int32Array.from(l))) as [
      Int32Array[],
      Int32Array[],
      Int32Array[],
    ];
  }

  /** Throws RangeError where a pivot vanishes: the matrix does not lean on its diagonal. */
  factor(): void {
    const { n, a, below, right, order } = this;
    for (let s = 0; s < n; s++) {
      const k = order[s] as number;
      const pivot = a[k * n + k] as number;
      if (!(Math.abs(pivot) > 1e-300)) throw new RangeError("The system is singular");
      const rows = below[k] as Int32Array;
      const columns = right[k] as Int32Array;
      for (let r = 0; r < rows.length; r++) {
        const row = (rows[r] as number) * n;
        const factor = (a[row + k] as number) / pivot;
        if (factor === 0) continue;
        a[row + k] = factor;
        for (let c = 0; c < columns.length; c++) {
          const j = columns[c] as number;
          a[row + j] = (a[row + j] as number) - factor * (a[k * n + j] as number);
        }
      }
    }
  }

  /** Solves for `b` in place. */
  solve(b: Float64Array): void {
    const { n, a, order } = this;
    for (let s = 0; s < n; s++) {
      const i = order[s] as number;
      b[i] = this.less(b, i, this.left[i] as Int32Array);
    }
    for (let s = n - 1; s >= 0; s--) {
      const i = order[s] as number;
      b[i] = this.less(b, i, this.right[i] as Int32Array) / (a[i * n + i] as number);
    }
  }

  /** Remainder of an unknown's right side once those in these columns are taken from it. */
  private less(b: Float64Array, i: number, columns: Int32Array): number {
    const { n, a } = this;
    let sum = b[i] as number;
    for (let c = 0; c < columns.length; c++) {
      const j = columns[c] as number;
      sum -= (a[i * n + j] as number) * (b[j] as number);
    }
    return sum;
  }
}
