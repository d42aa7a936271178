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
    private const AT_ONCE = 1_000;

    public function __construct(private Connection $database, private CorrectionLines $lines) {}

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
            $set = CorrectionSet::query()->create([
                'dataset_id' => $dataset->id,
                'tally_id' => $tally->id,
                'number' => CorrectionSet::query()->where('dataset_id', $dataset->id)->count() + 1,
                'lines' => $this->lines($tally, $acts),
                'rulings' => $acts,
                'user_id' => $person->id,
            ]);
            if ($set->lines === 0) {
                throw Conflict::because(
                    'nothing-to-correct',
                    'None of these defects stands on a finding of the newest tally: there is nothing to correct.',
                );
            }
            $number = 0;
            $some = [];
            foreach ($this->lines->of($tally, $acts) as $line) {
                $some[] = ['set_id' => $set->id, 'number' => ++$number, ...$line];
                if (count($some) === self::AT_ONCE) {
                    $this->enter($some);
                    $some = [];
                }
            }
            $this->enter($some);
            if ($number !== $set->lines) {
                throw new \LogicException("{$set->lines} findings stand as defects, and {$number} corrections were made of them.");
            }

            return $set;
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

    /** @param list<array<string, string|int|null>> $lines */
    private function enter(array $lines): void
    {
        // Bytes go as hexadecimal digits.
        $rows = array_map(
            fn(array $line): array => ['identity' => $this->database->raw("decode('{$line['identity']}', 'hex')")] + $line,
            $lines,
        );
        $rows === [] || $this->database->table('correction_lines')->insert($rows);
    }
}
