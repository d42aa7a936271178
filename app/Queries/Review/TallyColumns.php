<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/** By what the cells of a tally's records are named: its plan, and the columns of both sides when their steps have run. */
final readonly class TallyColumns
{
    /**
     * @param  list<string>  $sourceColumns
     * @param  list<string>  $targetColumns
     * @param  array{source: list<string>, target: list<string>}  $files  of each delivery, in the order of its parts
     */
    private function __construct(public Plan $plan, public array $sourceColumns, public array $targetColumns, public array $files) {}

    /**
     * @param  list<string>  $source  as delivered
     * @param  list<string>  $target
     * @param  array{source: list<string>, target: list<string>}  $files
     */
    public static function of(Plan $plan, array $source, array $target, array $files): self
    {
        return new self($plan, $plan->source->preparation->columns($source), $plan->target->preparation->columns($target), $files);
    }

    /** The file that a row came in, where its delivery has several. */
    public function file(Side $side, ?int $part): ?string
    {
        $files = $this->files[$side->value];

        return $part === null || count($files) < 2 ? null : $files[$part - 1] ?? null;
    }

    public static function ofTally(Tally $tally): self
    {
        $fields =
            $tally->getConnection()
                ->table('tallies AS t')
                ->join('plan_versions AS p', 'p.id', 't.plan_version_id')
                ->join('deliveries AS s', 's.id', 't.source_delivery_id')
                ->join('deliveries AS d', 'd.id', 't.target_delivery_id')
                ->where('t.id', $tally->id)
                ->select(['p.document', 's.columns AS source_columns', 'd.columns AS target_columns'])
                ->selectRaw(
                    '(SELECT json_agg(file_name ORDER BY number) FROM delivery_parts '.
                        'WHERE delivery_id = s.id) AS source_files, (SELECT json_agg(file_name ORDER BY number) FROM delivery_parts '.
                        'WHERE delivery_id = d.id) AS target_files',
                )
                ->first() ?? throw new ModelNotFoundException;
        $row = DatabaseRow::of($fields);

        return self::of(
            Plan::fromJson($row->text('document')),
            $row->cellsOrNull('source_columns') ?? [],
            $row->cellsOrNull('target_columns') ?? [],
            ['source' => $row->cellsOrNull('source_files') ?? [], 'target' => $row->cellsOrNull('target_files') ?? []],
        );
    }
}
