<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Database\ManyRows;
use App\Models\Dataset;
use App\Models\Ruling;
use App\Models\Tally;
use Illuminate\Database\Connection;
use Illuminate\Support\Collection;

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
        $acts = Ruling::defectsOf($this->dataset)->where('id', '<=', $this->newestAct)->orderBy('id')->get();
        if ($acts->isEmpty()) {
            return ['acts' => []];
        }
        $tallies = Tally::query()
            ->where('dataset_id', $this->dataset)
            ->where('id', '>=', $acts->min('tally_id'))
            ->where('id', '<=', $this->newestTally)
            ->orderBy('id')
            ->get();
        /** @var array<int, list<array{tally: int, findings: int}>> $histories */
        $histories = $acts->mapWithKeys(static fn(Ruling $act): array => [$act->id => []])->all();
        foreach ($tallies as $place => $tally) {
            $onProgress($place, $tallies->count());
            $there = $this->there($material->database, $tally, $acts);
            foreach ($acts as $act) {
                if ($act->tally_id <= $tally->id) {
                    $histories[$act->id][] = ['tally' => $tally->number, 'findings' => $there[$act->id] ?? 0];
                }
            }
        }

        return [
            'acts' => array_map(
                static fn(int $act, array $history): array => ['act' => $act, 'history' => $history],
                array_keys($histories),
                array_values($histories),
            ),
        ];
    }

    /**
     * All acts at once, so that a tally is read once however many there are.
     *
     * @param  Collection<int, Ruling>  $acts
     * @return array<int, int> findings that are in the tally, by act
     */
    private function there(Connection $database, Tally $tally, Collection $acts): array
    {
        $found = static fn(): array => DatabaseRow::all($database, <<<'SQL'
            WITH acts AS (SELECT id, tally_id FROM rulings WHERE id = ANY(:acts::bigint[]) AND tally_id <= :tally),
            cells AS (
                SELECT a.id AS act, f.identity FROM acts a JOIN standing_findings s ON s.tally_id = a.tally_id AND s.ruling_id = a.id
                JOIN cell_findings f ON f.tally_id = s.tally_id AND f.pattern_number = s.pattern_number AND f.pattern_ordinal = s.ordinal
            ),
            rows AS (
                SELECT a.id AS act, f.identity FROM acts a JOIN standing_findings s ON s.tally_id = a.tally_id AND s.ruling_id = a.id
                JOIN row_findings f ON f.tally_id = s.tally_id AND f.class = s.class AND f.class_ordinal = s.ordinal
            )
            SELECT act, count(*) AS findings FROM (
                SELECT c.act FROM cells c JOIN cell_findings f ON f.tally_id = :tally AND f.identity = c.identity
                UNION ALL SELECT r.act FROM rows r JOIN row_findings f ON f.tally_id = :tally AND f.identity = r.identity
            ) found GROUP BY act
            SQL, ['acts' => '{'.$acts->pluck('id')->implode(',').'}', 'tally' => $tally->id]);
        $there = [];
        foreach ($database->transaction(static fn(): array => ManyRows::withoutNestedLoops($database, $found)) as $row) {
            $there[$row->int('act')] = $row->int('findings');
        }

        return $there;
    }
}
