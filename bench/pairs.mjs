// What the yardsticks compare, as SQL that both understand.

const HARD = { phone: 'telephone', post: 'electric_post', inspector: 'seen_by', notes: 'remarks', status: 'state', paid_until: 'paid_to', fee: 'amount', length: 'length_m', boat: 'vessel', holder: 'owner' }

export function columns(shape, source, target) {
  const key = ['basin', 'berth']
  const pairs = source.filter((name) => !key.includes(name) && name !== 'line').map((name) => [name, shape === 'hard' ? HARD[name] : name])
  return { pairs, key, source, target }
}

/** In hard mode amounts, dates and names differ in form in every row, and that is forgiven; no cause is counted. */
const differs = ([source, target], shape, dialect) => {
  if (shape === 'hard' && source === 'fee') return `TRY_CAST_DECIMAL(s.${source}) IS DISTINCT FROM TRY_CAST_DECIMAL(t.${target})`
  if (shape === 'hard' && source === 'paid_until') {
    return dialect === 'duckdb' ? `CAST(s.${source} AS DATE) IS DISTINCT FROM CAST(strptime(t.${target}, '%d/%m/%Y') AS DATE)` : `s.${source}::date IS DISTINCT FROM to_date(t.${target}, 'DD/MM/YYYY')`
  }
  if (shape === 'hard' && source === 'holder') return `lower(s.${source}) IS DISTINCT FROM lower(t.${target})`
  return `s."${source}" IS DISTINCT FROM t."${target}"`
}

export function differing(pairs, key, shape, dialect) {
  const decimal = (sql) => sql.replaceAll(/TRY_CAST_DECIMAL\(([^)]+)\)/g, dialect === 'duckdb' ? 'TRY_CAST($1 AS DECIMAL(18, 6))' : "NULLIF($1, '')::numeric")
  const test = (pair) => decimal(differs(pair, shape, dialect))
  const values = pairs.map((pair) => `('${pair[0]}', s."${pair[0]}", t."${pair[1]}", ${test(pair)})`).join(', ')
  const on = key.map((name) => `s.${name} = t.${name}`).join(' AND ')
  const repeated = `SELECT ${key} FROM s GROUP BY ${key} HAVING count(*) > 1 UNION SELECT ${key} FROM t GROUP BY ${key} HAVING count(*) > 1`
  const names = key.map((name) => `coalesce(s.${name}, t.${name}) AS ${name}`)
  return `
    WITH repeated AS (${repeated}),
    met AS (
      SELECT s.line, ${names}, c.*
      FROM s JOIN t ON ${on} CROSS JOIN LATERAL (VALUES ${values}) c(name, source, target, differs)
      WHERE (${pairs.map(test).join(' OR ')}) AND c.differs AND NOT EXISTS (SELECT 1 FROM repeated r WHERE r.basin = s.basin AND r.berth = s.berth)
    ),
    alone AS (
      SELECT coalesce(s.line, 1000000000 + t.line) AS line, ${names}, CASE WHEN t.line IS NULL THEN 'missing' ELSE 'extra' END AS name, NULL AS source, NULL AS target, true AS differs
      FROM s FULL OUTER JOIN t ON ${on} WHERE s.line IS NULL OR t.line IS NULL
    ),
    several AS (SELECT s.line, s.basin, s.berth, 'repeated' AS name, NULL AS source, NULL AS target, true AS differs FROM s JOIN repeated USING (basin, berth))
    SELECT basin, berth, name, source, target FROM (SELECT * FROM met UNION ALL SELECT * FROM alone UNION ALL SELECT * FROM several) found ORDER BY line, name`
}
