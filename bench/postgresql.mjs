// Prints the script by which PostgreSQL does the same work: COPY in, full outer join, cells, COPY out. Tuned for one large statement.
// node postgresql.mjs SOURCE TARGET OUT SHAPE
import { readFileSync } from 'node:fs'
import { columns, differing } from './pairs.mjs'

const [source, target, out, shape] = process.argv.slice(2)
const header = (path) => readFileSync(path, { encoding: 'utf8' }).slice(0, 100_000).split('\n')[0].split(',')
const [s, t] = [header(source), header(target)]
const { pairs, key } = columns(shape, s, t)
const table = (name, names, path) => `
DROP TABLE IF EXISTS ${name};
CREATE UNLOGGED TABLE ${name} (${names.map((one) => `"${one}" text`).join(', ')}, line bigint GENERATED ALWAYS AS IDENTITY);
COPY ${name} (${names.map((one) => `"${one}"`).join(', ')}) FROM '${path}' (FORMAT csv, HEADER true, FORCE_NOT_NULL (${names.map((one) => `"${one}"`).join(', ')}));
ANALYZE ${name} (basin, berth);`
console.log(`
SET work_mem = '1GB'; SET maintenance_work_mem = '512MB'; SET max_parallel_workers_per_gather = 2; SET synchronous_commit = off; SET jit = off;
${table('s', s, source)}
${table('t', t, target)}
COPY (${differing(pairs, key, shape, 'postgresql')}) TO '${out}' (FORMAT csv);`)
