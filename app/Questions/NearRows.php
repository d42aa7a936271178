<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Deliveries\DeliveryReader;
use App\Models\Tally;
use App\Queries\Review\TallyColumns;
use Illuminate\Database\Connection;
use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\LikenessColumn;
use NineTally\Core\Likeness\LikenessKind;
use NineTally\Core\Likeness\LikenessSearch;
use NineTally\Core\Likeness\NearPair;
use NineTally\Core\Likeness\NearRowsFound;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Bridges;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/**
 * Which missing rows of a tally are most like which extra rows of it, by some columns. Pairs that its plan refused are left out.
 *
 * @phpstan-type Look array{source: string, target: string, kind: string, weight: int}
 * @phpstan-type NearRow array{sequence: int, part: int, line: int, key: list<string>, cells: list<string>}
 * @phpstan-type Found array{all: array{source: int, target: int}, looked: array{source: int, target: int},
 *     rows: array{source: list<NearRow>, target: list<NearRow>}, candidates: list<list<array{int, float}>>,
 *     pairs: list<array{int, int, float, float}>, curve: array{candidates: list<int>, best: list<int>, second: list<int>},
 *     cut: float, approximate: int}
 */
final readonly class NearRows implements Question
{
    /** Rows of a side that are looked at; what is beyond is said. */
    public const MOST = 60_000;

    private const ROWS_BETWEEN_REPORTS = 500;

    /**
     * @param  non-empty-list<Look>  $columns  prepared columns, with the kind of their likeness
     * @param  array<string, string>  $equivalents  word => word that stands for it
     */
    public function __construct(private int $tally, private array $columns, private array $equivalents = []) {}

    public function kind(): string
    {
        return 'near-rows';
    }

    public function about(): array
    {
        return [$this->tally, $this->columns, $this->equivalents];
    }

    /** @return Found rows of both sides that are anybody's candidate, and by their places in these lists who is like whom */
    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $tally = Tally::query()->findOrFail($this->tally);
        $layout = TallyColumns::ofTally($tally);
        $search = new LikenessSearch(self::columns($layout->plan, $this->columns), new FoldedText($this->equivalents));
        [$source, $target] = [
            $this->rows($material->database, $tally, $layout, Side::Source),
            $this->rows($material->database, $tally, $layout, Side::Target),
        ];
        foreach ($target as $row) {
            $search->add($row['cells']);
        }
        $search->calibrate(array_column($source, 'cells'));
        $refused = Bridges::identities($layout->plan->bridges->refused);
        $candidates = [];
        foreach ($source as $place => $row) {
            $some = $search->candidates($row['cells']);
            $candidates[] = $refused === [] ? $some : array_values(array_filter(
                $some,
                static fn(array $one): bool => ! isset($refused[(new Bridge($row['key'], $target[$one[0]]['key']))->identity()]),
            ));
            $place % self::ROWS_BETWEEN_REPORTS === 0 && $onProgress($place, count($source));
        }

        return $this->told(new NearRowsFound($candidates), $source, $target, [
            'source' => $tally->summary['rows']['source']['missing'] ?? 0,
            'target' => $tally->summary['rows']['target']['extra'] ?? 0,
        ]);
    }

    /**
     * @param  non-empty-list<Look>  $columns
     * @return non-empty-list<LikenessColumn>
     */
    public static function columns(Plan $plan, array $columns): array
    {
        return array_map(static function (array $column) use ($plan): LikenessColumn {
            $kind = LikenessKind::from($column['kind']);

            return new LikenessColumn(
                $kind,
                $column['weight'],
                $plan->source->reading($column['source'], $kind->kind()),
                $plan->target->reading($column['target'], $kind->kind()),
            );
        }, $columns);
    }

    /** @return list<NearRow> in the order of the side, with the cells of the chosen columns */
    private function rows(Connection $database, Tally $tally, TallyColumns $layout, Side $side): array
    {
        $names = $side === Side::Source ? $layout->sourceColumns : $layout->targetColumns;
        $places = array_flip($names);
        $at = static fn(string $name): int => $places[$name];
        $cellsAt = array_map($at, array_column($this->columns, $side->value));
        $keyAt = array_map($at, $layout->plan->keyNames($side));
        $rows = [];
        $found =
            $database
                ->table('row_findings')
                ->where(['tally_id' => $tally->id, 'class' => $side === Side::Source ? 'missing' : 'extra'])
                ->orderBy('class_ordinal')
                ->limit(self::MOST)
                ->select(['sequence', "{$side->value}_part AS part", "{$side->value}_line AS line", "{$side->value}_cells AS cells"]);
        foreach ($found->cursor() as $fields) {
            $row = DatabaseRow::of($fields);
            $cells = $row->cellsOrNull('cells') ?? [];
            $cell = static fn(int $place): string => $cells[$place] ?? '';
            $rows[] = [
                'sequence' => $row->int('sequence'),
                'part' => $row->intOrNull('part') ?? 1,
                'line' => $row->intOrNull('line') ?? 0,
                'key' => array_map($cell, $keyAt),
                'cells' => array_map($cell, $cellsAt),
            ];
        }

        return $rows;
    }

    /**
     * @param  list<NearRow>  $source
     * @param  list<NearRow>  $target
     * @param  array{source: int, target: int}  $all
     * @return Found
     */
    private function told(NearRowsFound $found, array $source, array $target, array $all): array
    {
        // Only rows that are like some other are kept, and are called by their place among these.
        $placeOf = ['source' => [], 'target' => []];
        $listed = [];
        foreach ($found->candidates as $row => $some) {
            if ($some === []) {
                continue;
            }
            $placeOf['source'][$row] = count($placeOf['source']);
            $listed[] = array_map(static function (array $one) use (&$placeOf): array {
                $placeOf['target'][$one[0]] ??= count($placeOf['target']);

                return [$placeOf['target'][$one[0]], round($one[1], 4)];
            }, $some);
        }

        return [
            'all' => $all,
            'looked' => ['source' => count($source), 'target' => count($target)],
            'rows' => [
                'source' => $this->shown($source, $placeOf['source']),
                'target' => $this->shown($target, $placeOf['target']),
            ],
            'candidates' => $listed,
            'pairs' => array_map(static fn(NearPair $pair): array => [
                $placeOf['source'][$pair->source],
                $placeOf['target'][$pair->target],
                round($pair->score, 4),
                round($pair->rival, 4),
            ], $found->assigned->pairs),
            'curve' => $found->curve(),
            'cut' => round($found->proposedCut(), 2),
            'approximate' => $found->assigned->approximate,
        ];
    }

    /**
     * @param  list<NearRow>  $rows
     * @param  array<int, int>  $places  by the number of a row
     * @return list<NearRow>
     */
    private function shown(array $rows, array $places): array
    {
        $shown = [];
        foreach ($places as $number => $_) {
            $row = $rows[$number];
            $row['cells'] = array_map(DeliveryReader::shortened(...), $row['cells']);
            $shown[] = $row;
        }

        return $shown;
    }
}
