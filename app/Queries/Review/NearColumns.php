<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Likeness\ColumnSample;
use NineTally\Core\Likeness\LikenessProposal;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Kind;

/**
 * By which columns missing and extra rows of a tally can be alike, and which of them are proposed.
 *
 * @phpstan-import-type Proposed from LikenessProposal
 *
 * @phpstan-type Available array{source: string, target: string, isOfKey: bool}
 */
final readonly class NearColumns
{
    /** Values that are looked at, of all columns of both sides together: this is asked with every page. */
    private const VALUES = 24_000;

    public function __construct(private Connection $database) {}

    /** @return list<Available> the key's first */
    public function available(Tally $tally, Mask $mask): array
    {
        $plan = $tally->planVersion->plan();
        $columns = [
            ...array_map(
                static fn(KeyColumn $column): array => ['source' => $column->source, 'target' => $column->target, 'isOfKey' => true],
                $plan->key,
            ),
            ...array_map(
                static fn(ColumnPair $pair): array => ['source' => $pair->source, 'target' => $pair->target, 'isOfKey' => false],
                $plan->columnPairs,
            ),
        ];

        // Who is told which rows are alike in a value learns of it.
        return array_values(array_filter(
            $columns,
            static fn(array $column): bool => ! $mask->hidesColumn($column['source']) && ! $mask->hidesColumn($column['target']),
        ));
    }

    /** @return list<Proposed> */
    public function proposed(Tally $tally, Mask $mask): array
    {
        $layout = TallyColumns::ofTally($tally);
        $available = $this->available($tally, $mask);
        $each = max(50, intdiv(self::VALUES, 2 * max(1, count($available))));
        $rows = ['source' => $this->sample($tally, Side::Source, $each), 'target' => $this->sample($tally, Side::Target, $each)];
        $places = ['source' => array_flip($layout->sourceColumns), 'target' => array_flip($layout->targetColumns)];
        $agreed = [];
        foreach ($tally->figuresByColumn() as $column) {
            $met = $column['values']['right'] + $column['values']['differing'];
            $agreed[$column['source']] = $met === 0 ? null : $column['values']['right'] / $met;
        }
        $kinds = [];
        foreach ($layout->plan->columnPairs as $pair) {
            $kinds[$pair->source] = $pair->kind;
        }
        $samples = [];
        foreach ($available as $column) {
            $values = static fn(string $side): array => array_map(
                static fn(array $cells): string => $cells[$places[$side][$column[$side]] ?? -1] ?? '',
                $rows[$side],
            );
            $samples[] = new ColumnSample(
                $column['source'],
                $column['target'],
                $column['isOfKey'] ? Kind::Text : $kinds[$column['source']] ?? Kind::Text,
                $column['isOfKey'],
                $values('source'),
                $values('target'),
                $column['isOfKey'] ? null : $agreed[$column['source']] ?? null,
            );
        }

        return LikenessProposal::of($samples);
    }

    /** @return list<list<string>> cells of the first rows that meet nothing */
    private function sample(Tally $tally, Side $side, int $rows): array
    {
        $found =
            $this->database
                ->table('row_findings')
                ->where(['tally_id' => $tally->id, 'class' => $side === Side::Source ? 'missing' : 'extra'])
                ->where('class_ordinal', '<=', $rows)
                ->orderBy('class_ordinal')
                ->pluck("{$side->value}_cells");

        return array_map(
            static fn(mixed $cells): array => DatabaseRow::of((object) ['cells' => $cells])->cellsOrNull('cells') ?? [],
            array_values($found->all()),
        );
    }
}
