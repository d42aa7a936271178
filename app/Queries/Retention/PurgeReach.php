<?php

declare(strict_types=1);

namespace App\Queries\Retention;

use App\Adapters\Database\DatabaseRow;
use App\Models\Purge;
use Illuminate\Database\Connection;
use NineTally\Core\Plan\PlanValues;

/**
 * What goes with the content of deliveries, and what stays although it holds some of it.
 *
 * @phpstan-import-type Removed from Purge
 *
 * @phpstan-type PlanWithValues array{id: int, datasetId: int, dataset: string, number: int, document: array<array-key, mixed>, values: int,
 *     goes: bool}
 */
final readonly class PurgeReach
{
    public function __construct(private Connection $database) {}

    /**
     * @param  list<int>  $deliveries  ids
     * @return list<array{id: int, datasetId: int, dataset: string, number: int, state: string}> tallies that read one of them and whose
     *     content still stands
     */
    public function tallies(array $deliveries): array
    {
        return array_map(
            static fn(DatabaseRow $row): array => [
                'id' => $row->int('id'),
                'datasetId' => $row->int('dataset_id'),
                'dataset' => $row->text('dataset'),
                'number' => $row->int('number'),
                'state' => $row->textOrNull('state') ?? 'none',
            ],
            DatabaseRow::all(
                $this->database,
                <<<'SQL'
                SELECT t.id, t.dataset_id, d.name AS dataset, t.number,
                    (SELECT act FROM signatures WHERE tally_id = t.id ORDER BY id DESC LIMIT 1) AS state
                FROM tallies t JOIN datasets d ON d.id = t.dataset_id
                WHERE t.run_id IN (
                    SELECT run_id FROM run_deliveries WHERE delivery_id = ANY (?::bigint[]) AND how <> 'records'
                )
                    AND NOT EXISTS (SELECT 1 FROM purged_tallies WHERE tally_id = t.id)
                ORDER BY d.name, t.number
                SQL,
                [self::ids($deliveries)],
            ),
        );
    }

    /**
     * @param  list<int>  $deliveries  ids
     * @param  list<int>  $tallies  ids of those that go with them
     * @return Removed
     */
    public function counts(array $deliveries, array $tallies, int $planValues): array
    {
        $row = DatabaseRow::all(
            $this->database,
            <<<'SQL'
            WITH gone AS (SELECT ?::bigint[] AS deliveries, ?::bigint[] AS tallies)
            SELECT
                (SELECT count(*) FROM delivery_parts WHERE delivery_id = ANY (deliveries)) AS files,
                (SELECT coalesce(sum(bytes), 0)::bigint FROM delivery_parts WHERE delivery_id = ANY (deliveries)) AS bytes,
                (SELECT count(*) FROM refused_records WHERE delivery_id = ANY (deliveries)) AS refused,
                (SELECT coalesce(sum(findings), 0)::bigint FROM standing_counts WHERE tally_id = ANY (tallies)) AS findings,
                (SELECT count(*) FROM reports WHERE tally_id = ANY (tallies)) AS reports,
                (SELECT count(*) FROM packs WHERE tally_id = ANY (tallies)
                    AND NOT EXISTS (SELECT 1 FROM removed_packs WHERE pack_id = packs.id)) AS packs,
                (SELECT count(*) FROM report_links WHERE tally_id = ANY (tallies)) AS links,
                (SELECT coalesce(sum(lines), 0)::bigint FROM correction_sets WHERE tally_id = ANY (tallies)) AS corrections,
                (SELECT count(*) FROM comments WHERE tally_id = ANY (tallies)) AS comments
            FROM gone
            SQL,
            [self::ids($deliveries), self::ids($tallies)],
        )[0];

        return [
            'files' => $row->int('files'),
            'bytes' => $row->int('bytes'),
            'refused' => $row->int('refused'),
            'tallies' => count($tallies),
            'findings' => $row->int('findings'),
            'reports' => $row->int('reports'),
            'packs' => $row->int('packs'),
            'links' => $row->int('links'),
            'corrections' => $row->int('corrections'),
            'comments' => $row->int('comments'),
            'planValues' => $planValues,
        ];
    }

    /**
     * Versions of plans that hold values, of datasets whose content goes: those that only such runs read from which something went, and
     * those that stay, for another tally stands on them.
     *
     * @param  list<int>  $deliveries  ids
     * @return list<PlanWithValues>
     */
    public function plans(array $deliveries): array
    {
        $plans = [];
        foreach (
            DatabaseRow::all(
                $this->database,
                <<<'SQL'
                WITH going AS (SELECT unnest(?::bigint[]) AS id UNION SELECT delivery_id FROM purges)
                SELECT v.id, v.dataset_id, d.name AS dataset, v.number, v.document,
                    NOT EXISTS (
                        SELECT 1 FROM runs r WHERE r.plan_version_id = v.id
                            AND NOT EXISTS (SELECT 1 FROM run_deliveries u JOIN going g ON g.id = u.delivery_id
                                WHERE u.run_id = r.id AND how <> 'records')
                    ) AS goes
                FROM plan_versions v JOIN datasets d ON d.id = v.dataset_id
                WHERE NOT EXISTS (SELECT 1 FROM purged_plans WHERE plan_version_id = v.id) AND v.id IN (
                    SELECT r.plan_version_id FROM runs r JOIN run_deliveries u ON u.run_id = r.id
                    WHERE u.delivery_id = ANY (?::bigint[]) AND how <> 'records'
                )
                ORDER BY v.id
                SQL,
                [self::ids($deliveries), self::ids($deliveries)],
            ) as $row
        ) {
            /** @var array<array-key, mixed> $document */
            $document = json_decode($row->text('document'), true, 64, JSON_THROW_ON_ERROR);
            $taken = PlanValues::takenOutOf($document);
            if ($taken->count > 0) {
                $plans[] = [
                    'id' => $row->int('id'),
                    'datasetId' => $row->int('dataset_id'),
                    'dataset' => $row->text('dataset'),
                    'number' => $row->int('number'),
                    'document' => $taken->document,
                    'values' => $taken->count,
                    'goes' => $row->flag('goes'),
                ];
            }
        }

        return $plans;
    }

    /**
     * What still holds some of the content afterwards, in words: nobody is told that all of it is gone where it is not.
     *
     * @param  list<int>  $deliveries  ids
     * @return list<string>
     */
    public function stays(array $deliveries): array
    {
        $stays = [];
        foreach ($this->plans($deliveries) as $plan) {
            if (! $plan['goes']) {
                $stays[] = sprintf(
                    '%s: version %d of the plan keeps %d %s of crosswalks, bridges and chosen rows, for a tally of other '.
                    'deliveries stands on it.',
                    $plan['dataset'],
                    $plan['number'],
                    $plan['values'],
                    $plan['values'] === 1 ? 'line' : 'lines',
                );
            }
        }
        foreach (
            DatabaseRow::all(
                $this->database,
                <<<'SQL'
                SELECT DISTINCT p.file_name, d.name AS dataset, o.side, o.number
                FROM delivery_parts p
                JOIN delivery_parts same ON same.digest = p.digest AND same.delivery_id <> ALL (?::bigint[])
                JOIN deliveries o ON o.id = same.delivery_id
                JOIN datasets d ON d.id = o.dataset_id
                WHERE p.delivery_id = ANY (?::bigint[]) AND NOT EXISTS (SELECT 1 FROM purges WHERE delivery_id = o.id)
                    AND d.migration_id = (
                        SELECT migration_id FROM datasets WHERE id = (SELECT dataset_id FROM deliveries WHERE id = p.delivery_id)
                    )
                ORDER BY 2, 3, 4
                SQL,
                [self::ids($deliveries), self::ids($deliveries)],
            ) as $row
        ) {
            $stays[] = sprintf(
                'The same bytes as "%s" stand in %s delivery %d of %s, and stay until that is purged too.',
                $row->text('file_name'),
                $row->text('side'),
                $row->int('number'),
                $row->text('dataset'),
            );
        }

        return $stays;
    }

    /** @param list<int> $ids */
    private static function ids(array $ids): string
    {
        return '{'.implode(',', $ids).'}';
    }
}
