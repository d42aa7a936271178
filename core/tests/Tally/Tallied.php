<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\Progress;
use NineTally\Core\Tally\SilentProgress;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Tests\TemporaryFiles;

/** Runs a tally on two small texts and takes all it yields. */
trait Tallied
{
    use TemporaryFiles;

    /** @var list<RowFinding> */
    private array $found = [];

    /**
     * @param  list<string>  $key
     * @param  array<string, string>  $map
     */
    private function tally(
        string $source,
        string $target,
        array $key = ['basin', 'berth'],
        array $map = [],
        ?int $partitions = null,
        Progress $progress = new SilentProgress,
    ): Summary {
        $readers = ['source' => $this->reader($source, 'old.csv'), 'target' => $this->reader($target, 'new.csv')];
        $plan = Plan::pairing($readers['source']->columns, $readers['target']->columns, $key, $map);

        return $this->tallyOf($plan, $readers['source'], $readers['target'], $progress, new TallySettings(partitions: $partitions));
    }

    private function tallyOf(
        Plan $plan,
        Reader $source,
        Reader $target,
        Progress $progress = new SilentProgress,
        TallySettings $settings = new TallySettings,
    ): Summary {
        $findings = (new TallyRun(
            $plan,
            new Sides($source, $target),
            $this->folder('work-'.bin2hex(random_bytes(4))),
            $progress,
            $settings,
        ))->findings();
        $this->found = [];
        foreach ($findings as $finding) {
            $this->found[] = $finding;
        }

        return $findings->getReturn();
    }

    /** @return list<string> each finding in one line: class, side, key, line of each side, its cells */
    private function lines(): array
    {
        return array_map(
            static fn(RowFinding $row): string => trim(
                implode(' ', [
                    $row->class->value,
                    $row->side->value ?? 'both',
                    $row->key?->asCsv() ?? '',
                    ($row->source->line ?? '-').'/'.($row->target->line ?? '-'),
                    implode(
                        ' ',
                        array_map(
                            static fn(
                                CellFinding $cell,
                            ): string => "[{$cell->pairPosition} {$cell->class->value} {$cell->cause}: {$cell->source} > {$cell->target}]",
                            $row->cells,
                        ),
                    ),
                ]),
            ),
            $this->found,
        );
    }
}
