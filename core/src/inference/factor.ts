/** A table over discrete variables, row-major: the last variable's state moves fastest. */
export interface Factor {
  readonly vars: readonly number[];
  readonly table: Float64Array;
}

/** For each variable of `scope`, the step it makes in `factor`'s table (0 where the factor does not know it). */
function stridesIn(factor: Factor, scope: readonly number[], sizes: readonly number[]): number[] {
  const strides = scope.map(() => 0);
  let stride = 1;
  for (let i = factor.vars.length - 1; i >= 0; i--) {
    const at = scope.indexOf(factor.vars[i]!);
    if (at >= 0) strides[at] = stride;
    stride *= sizes[factor.vars[i]!]!;
  }
  return strides;
}

/** Walks all states of `scope` in table order and tells the position in a factor with the given strides. */
function walk(
  scope: readonly number[],
  sizes: readonly number[],
  strides: readonly number[],
  visit: (index: number, position: number) => void,
): void {
  const states = scope.map(() => 0);
  const total = tableSize(scope, sizes);
  let position = 0;
  for (let index = 0; index < total; index++) {
    visit(index, position);
    for (let i = scope.length - 1; i >= 0; i--) {
      position += strides[i]!;
      if (++states[i]! < sizes[scope[i]!]!) break;
      position -= strides[i]! * sizes[scope[i]!]!;
      states[i] = 0;
    }
  }
}

export function tableSize(scope: readonly number[], sizes: readonly number[]): number {
  return scope.reduce((product, variable) => product * sizes[variable]!, 1);
}

/** The product of factors as one table over `scope`, which must hold all their variables. */
export function multiply(
  factors: readonly Factor[],
  scope: readonly number[],
  sizes: readonly number[],
): Factor {
  const table = new Float64Array(tableSize(scope, sizes)).fill(1);
  for (const factor of factors) {
    walk(scope, sizes, stridesIn(factor, scope, sizes), (index, position) => {
      table[index]! *= factor.table[position]!;
    });
  }
  return { vars: scope, table };
}

/** Sums a factor down to the variables of `scope`, a subset of its own. */
export function sumTo(factor: Factor, scope: readonly number[], sizes: readonly number[]): Factor {
  const target: Factor = { vars: scope, table: new Float64Array(tableSize(scope, sizes)) };
  walk(factor.vars, sizes, stridesIn(target, factor.vars, sizes), (index, position) => {
    target.table[position]! += factor.table[index]!;
  });
  return target;
}

/** Entry by entry; 0/0 is 0, since a state ruled out stays ruled out. */
export function divide(numerator: Factor, denominator: Factor): Factor {
  return {
    vars: numerator.vars,
    table: numerator.table.map((value, i) => (value === 0 ? 0 : value / denominator.table[i]!)),
  };
}

export function total(factor: Factor): number {
  return factor.table.reduce((sum, value) => sum + value, 0);
}
