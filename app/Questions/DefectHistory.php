<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Database\DatabaseRow;
use App\Models\Dataset;
use App\Models\Decision;
use App\Models\Ruling;
use Illuminate\Database\Connection;

/**
 * How many findings of each defect every tally since then has, by their identity: the state of a defect by the data, whatever was ruled
 * since.
 */
final readonly class DefectHistory implements Question
{
    private function __construct(private int $dataset, private int $newestTally, private int $newestAct) {}

    /** @return self|null null while nothing was ruled a defect, or nothing was tallied */
    public static function of(Dataset $dataset): ?self
    {
        $tally = $dataset->latestTally();
        $act = Ruling::query()->where('dataset_id', $dataset->id)->max('id');

        return $tally === null || ! is_int($act) ? null : new self($dataset->id, $tally->id, $act);
    }

    public function kind(): string
    {
        return 'history-of-defects';
    }

    public function about(): array
    {
        return [$this->dataset, $this->newestTally, $this->newestAct];
    }

    /** @return array{acts: list<array{act: int, history: list<array{tally: int, findings: int}>}>} in each tally from its own on */
    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $acts = Ruling::query()
            ->where('dataset_id', $this->dataset)
            ->where('decision', Decision::Defect->value)
            ->where('id', '<=', $this->newestAct)
            ->whereNotExists(
                static fn(\Illuminate\Database\Query\Builder $undo) => $undo
                    ->selectRaw('1')
                    ->from('rulings AS u')
                    ->whereColumn('u.undoes_id', 'rulings.id'),
            )
            ->orderBy('id')
            ->get();
        $histories = [];
        foreach ($acts as $place => $act) {
            $onProgress($place, $acts->count());
            $histories[] = ['act' => $act->id, 'history' => $this->history($material->database, $act)];
        }

        return ['acts' => $histories];
    }

    /** @return list<array{tally: int, findings: int}> */
    private function history(Connection $database, Ruling $act): array
    {
        $rows = DatabaseRow::all($database, <<<'SQL'
            WITH members AS (
                SELECT f.identity FROM standing_findings s JOIN cell_findings f ON f.tally_id = s.tally_id
                    AND f.pattern_number = s.pattern_number AND f.pattern_ordinal = s.ordinal
                WHERE s.tally_id = :tally AND s.ruling_id = :act AND s.pattern_number IS NOT NULL
                UNION
                SELECT f.identity FROM standing_findings s JOIN row_findings f ON f.tally_id = s.tally_id
                    AND f.class = s.class AND f.class_ordinal = s.ordinal
                WHERE s.tally_id = :tally AND s.ruling_id = :act AND s.class IS NOT NULL
            )
            SELECT t.number AS tally,
                (SELECT count(*) FROM cell_findings f WHERE f.tally_id = t.id AND f.identity IN (SELECT identity FROM members))
                + (SELECT count(*) FROM row_findings f WHERE f.tally_id = t.id AND f.identity IN (SELECT identity FROM members)) AS findings
            FROM tallies t WHERE t.dataset_id = :dataset AND t.id >= :tally AND t.id <= :newest ORDER BY t.number
            SQL, ['tally' => $act->tally_id, 'act' => $act->id, 'dataset' => $this->dataset, 'newest' => $this->newestTally]);

        return array_map(
            static fn(DatabaseRow $row): array => ['tally' => $row->int('tally'), 'findings' => $row->int('findings')],
            $rows,
        );
    }
}
