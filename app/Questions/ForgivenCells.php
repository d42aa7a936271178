<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Storage\ForgivenLists;
use App\Models\Tally;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\Progress;
use NineTally\Core\Tally\ProgressReport;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\Workspace;

/**
 * Every cell that a rule of a tally's plan let pass, by pattern. Rows that agree are kept nowhere but in the deliveries, so the same run
 * is made
 * once more, and what it let pass is written down in lists; what nobody uses for two weeks is cleared up, and made again when it is asked
 * for.
 */
final readonly class ForgivenCells implements Question
{
    private const PARTS = 1_000;

    private function __construct(private int $tally) {}

    public static function ofTally(Tally $tally): self
    {
        return new self($tally->id);
    }

    public function kind(): string
    {
        return 'what-rules-let-pass';
    }

    public function about(): array
    {
        return [$this->tally];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $tally = Tally::query()->with(['planVersion', 'run'])->findOrFail($this->tally);
        $plan = $tally->planVersion->plan();
        $sides = BothSides::ofTally($tally);
        $readers = Sides::each(static fn(Side $side) => $sides->reader($material, $side));
        $progress = new class ($onProgress, self::PARTS) implements Progress {
            /** @param \Closure(int, int): void $onProgress */
            public function __construct(private readonly \Closure $onProgress, private readonly int $parts) {}

            public function report(ProgressReport $report): void
            {
                ($this->onProgress)((int) ($report->done * $this->parts), $this->parts);
            }
        };
        $workspace = Workspace::make();
        $lists = $this->lists($material)->begin($tally->forgivenLists());
        try {
            $run = new TallyRun($plan, $readers, $workspace->path, $progress, new TallySettings(listsForgiven: true));
            $keys = Sides::each(static fn(Side $side): array => $readers->of($side)->columns()->positionsOf($plan->keyNames($side)));
            foreach ($run->findings() as $row) {
                if ($row->source !== null && $row->target !== null) {
                    foreach ($row->keyForgiven as $column => $cause) {
                        $values = [$row->source->cells[$keys->source[$column]], $row->target->cells[$keys->target[$column]]];
                        $lists->add(Tally::nameOfList(true, $plan->key[$column]->source, $cause, []), $this->line($row, ...$values));
                    }
                    foreach ($row->forgiven as $cell) {
                        $column = $plan->columnPairs[$cell->pairPosition]->source;
                        $lists->add(
                            Tally::nameOfList(false, $column, $cell->cause, $cell->facts),
                            $this->line($row, $cell->source, $cell->target),
                        );
                    }
                }
            }
            $lists->finish();
        } finally {
            $lists->abandon();
            $workspace->remove();
        }

        return [];
    }

    public function lists(QuestionContext $material): ForgivenLists
    {
        return new ForgivenLists("{$material->sides->folder()}/forgiven-".(new Answers)->digest($this));
    }

    /** @return array{string, int, int, int, int, string, string} as a line of a list holds it */
    private function line(RowFinding $row, string $source, string $target): array
    {
        $place = static fn(?RowRecord $record): array => [$record->part ?? 1, $record->line ?? 0];

        return [(string) $row->deliveredKey?->asCsv(), ...$place($row->source), ...$place($row->target), $source, $target];
    }
}
