// Compiles the WebAssembly workloads. They are small, so every build does all of them.
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import asc from 'assemblyscript/asc';

const root = new URL('../src/workloads/', import.meta.url).pathname;
mkdirSync(`${root}generated`, { recursive: true });
// A workload may also come in a mode that not every browser has.
const MODES = { index: { suffix: '', more: [] }, simd: { suffix: '-simd', more: ['--enable', 'simd'] } };
for (const name of readdirSync(root)) {
  for (const [mode, { suffix, more }] of Object.entries(MODES)) {
    const source = `${name}/assembly/${mode}.ts`;
    if (!existsSync(root + source)) continue;
    const { error, stderr } = await asc.main(
      [
        source,
        '--outFile',
        `generated/${name}${suffix}.wasm`,
        '-O3',
        '--runtime',
        'stub',
        '--noAssert',
        '--initialMemory',
        '160',
        ...more,
      ],
      {
        // Our own reading and writing: the compiler's own looks beside the directory that npm was started in.
        readFile: (file) => (existsSync(root + file) ? readFileSync(root + file, 'utf8') : null),
        writeFile: (file, contents) => writeFileSync(root + file, contents),
        listFiles: () => null,
      },
    );
    if (error) {
      console.error(stderr.toString());
      throw error;
    }
  }
}
