/** Multiplies small matrices for ever; whoever began it ends it. */
const SIDE = 64;
const a = new Float64Array(SIDE * SIDE).fill(1.000001);
const b = new Float64Array(SIDE * SIDE).fill(0.999999);
const c = new Float64Array(SIDE * SIDE);

function round(): void {
  for (let i = 0; i < SIDE; i++)
    for (let j = 0; j < SIDE; j++) {
      let sum = 0;
      for (let k = 0; k < SIDE; k++) sum += a[i * SIDE + k]! * b[k * SIDE + j]!;
      c[i * SIDE + j] = sum;
    }
}

for (;;) {
  round();
  // What nobody reads might be left out.
  if (Number.isNaN(c[0])) self.postMessage('none');
}
