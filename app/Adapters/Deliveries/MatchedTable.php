<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Dataset;
use App\Models\Run;
use App\Models\Tally;
use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Preparation\Steps\AsMatched;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\MatchedRows;
use NineTally\Core\Tally\Workspace;

/** The pairs of rows that a tally matched, as a table that steps of other datasets take from. A tally never changes, so it is made once. */
final readonly class MatchedTable
{
    public function __construct(private PreparedSides $sides) {}

    /** The dataset of the migration that a table of this name is of; null where it is no such table, or there is no such dataset. */
    public static function datasetOf(Dataset $dataset, string $table): ?Dataset
    {
        $name = AsMatched::datasetOf($table);

        return $name === null ? null : self::datasetNamed($dataset, $name);
    }

    /** Another dataset of the same migration. */
    public static function datasetNamed(Dataset $dataset, string $name): ?Dataset
    {
        return $dataset->migration->datasets()->whereRaw('lower(name) = lower(?)', [$name])->whereKeyNot($dataset->id)->first();
    }

    /**
     * @return array{path: string, name: string, format: PartFormat, label: string} as a part of a delivery
     *
     * @throws \App\Problems\ContentPurged when what it was made of is gone
     */
    public function part(int $tally): array
    {
        $path = "{$this->sides->folder()}/matched-{$tally}.csv";
        if (! is_file($path)) {
            $this->write(Tally::query()->with(['dataset', 'planVersion'])->findOrFail($tally), $path);
        }

        return ['path' => $path, 'name' => basename($path), 'format' => self::format(), 'label' => ''];
    }

    private static function format(): PartFormat
    {
        return PartFormat::delimited(new DelimitedFormat(',', LineEnds::Lf));
    }

    private function write(Tally $tally, string $path): void
    {
        $plan = $tally->planVersion->plan();
        $inputs = PreparationInputs::ofRun(Run::query()->findOrFail($tally->run_id));
        $readers = Sides::each(fn(Side $side): Reader => $this->sides->reader(
            $side === Side::Source ? $tally->sourceDelivery : $tally->targetDelivery,
            $plan->side($side),
            $inputs,
        ));
        $workspace = Workspace::make($this->sides->folder());
        try {
            $matched = new MatchedRows($plan, $readers, $workspace->path);
            $file = new AtomicFile($path);
            $file->write(CsvLine::of($matched->columns()));
            foreach ($matched->rows() as $cells) {
                $file->write(CsvLine::of($cells));
            }
            $file->finish();
        } finally {
            $workspace->remove();
        }
    }
}
