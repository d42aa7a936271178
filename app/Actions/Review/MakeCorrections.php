<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\CorrectionSet;
use App\Models\Dataset;
use App\Models\Decision;
use App\Models\Ruling;
use App\Models\Tally;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Review\CorrectionLines;
use Illuminate\Database\Connection;

/** Makes the corrections of defects that stand on the newest tally, as a set that never changes. Nothing is written to any system. */
final readonly class MakeCorrections
{
    public function __construct(private Connection $database, private CorrectionLines $lines, private EnterCorrections $enter) {}

    /**
     * @param  list<int>  $rulings  acts of ruling
     *
     * @throws Conflict when none of them stands on a finding of the newest tally
     */
    public function __invoke(Dataset $dataset, array $rulings, User $person): CorrectionSet
    {
        return $this->database->transaction(function () use ($dataset, $rulings, $person): CorrectionSet {
            Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            $tally = $dataset->latestTally() ?? throw Conflict::because('no-tally', 'There is no tally yet.');
            $acts = Ruling::query()
                ->where('dataset_id', $dataset->id)
                ->where('decision', Decision::Defect->value)
                ->whereIntegerInRaw('id', $rulings)
                ->orderBy('id')
                ->pluck('id')
                ->all();
            $acts = array_values(array_filter($acts, is_int(...)));

            return ($this->enter)(
                $tally,
                $acts,
                $this->lines($tally, $acts),
                $this->lines->of($tally, $acts),
                $person,
                'None of these defects stands on a finding of the newest tally: there is nothing to correct.',
            );
        });
    }

    /** @param list<int> $acts */
    private function lines(Tally $tally, array $acts): int
    {
        $row = DatabaseRow::all(
            $this->database,
            'SELECT coalesce(sum(findings), 0)::bigint AS findings FROM standing_acts WHERE tally_id = ? AND ruling_id = ANY(?::bigint[])',
            [$tally->id, '{'.implode(',', $acts).'}'],
        )[0];

        return $row->int('findings');
    }
}
