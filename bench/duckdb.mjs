// The same work by DuckDB: two CSV files in, the differing cells in source order out, with two threads.
// node duckdb.mjs SOURCE TARGET OUT SHAPE
import { DuckDBInstance } from '@duckdb/node-api'
import { columns, differing } from './pairs.mjs'

const [source, target, out, shape] = process.argv.slice(2)
const instance = await DuckDBInstance.create(':memory:')
const connection = await instance.connect()
await connection.run('SET threads = 2')
await connection.run('SET preserve_insertion_order = true')
const read = (table, path) => connection.run(`CREATE TABLE ${table} AS SELECT *, row_number() OVER () AS line FROM read_csv('${path}', header = true, all_varchar = true, quote = '"', escape = '"', nullstr = '\\0', max_line_size = 10000000)`)
await read('s', source)
await read('t', target)
const { pairs, key } = columns(shape, (await connection.runAndReadAll('SELECT * FROM s LIMIT 0')).columnNames(), (await connection.runAndReadAll('SELECT * FROM t LIMIT 0')).columnNames())
await connection.run(`COPY (${differing(pairs, key, shape, 'duckdb')}) TO '${out}' (HEADER false)`)
