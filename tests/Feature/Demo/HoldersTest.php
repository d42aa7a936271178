<?php

declare(strict_types=1);

namespace Tests\Feature\Demo;

use Database\Demo\Generator;
use Database\Demo\Holders;
use Database\Demo\Moorings;
use Database\Demo\Wherrymoor;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Preparation\PreparedSide;
use NineTally\Core\Preparation\ReferenceShelf;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\MatchedRows;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;
use PHPUnit\Framework\TestCase;

/** Once holders are bridged as they were renumbered, moorings meet through their numbers: against the truth of how both were made. */
final class HoldersTest extends TestCase
{
    private Workspace $workspace;

    protected function setUp(): void
    {
        $this->workspace = Workspace::make();
    }

    protected function tearDown(): void
    {
        $this->workspace->remove();
    }

    public function test_moorings_differ_in_no_number_of_a_holder_when_they_are_tallied_through_holders(): void
    {
        $demo = Wherrymoor::datasets()[0];
        $paths = (new Generator($demo, Wherrymoor::SEED))->write($this->workspace->path);
        [$source, $target] = [
            DelimitedReader::detecting($paths['source'], 'moorings'),
            DelimitedReader::detecting($paths['target'], 'moorings'),
        ];
        $step = [
            'id' => 'm',
            'kind' => 'as-matched',
            'reference' => Holders::NAME,
            'on' => [['column' => 'holder_no', 'reference' => 'holder_no']],
            'take' => [['reference' => 'number', 'into' => 'holder_no']],
        ];
        $plain = Plan::fromJson(CanonicalJson::of($demo->plan()));
        /** @var array<string, array<string, mixed>> $sides */
        $sides = $demo->plan()['sides'] ?? [];
        $through = Plan::fromJson(CanonicalJson::of(
            ['sides' => ['source' => ['preparation' => [$step]] + ($sides['source'] ?? [])] + $sides] + $demo->plan(),
        ));

        self::assertSame(Moorings::RENUMBERED, $this->differing($plain, $source, $target));
        self::assertSame(0, $this->differing($through, $this->prepared($through, $source), $target));
    }

    private function differing(Plan $plan, Reader $source, Reader $target): int
    {
        $run = new TallyRun($plan, new Sides($source, $target), Workspace::make($this->workspace->path)->path);
        $differing = 0;
        foreach ($run->findings() as $row) {
            $differing += count(array_filter(
                $row->cells,
                static fn(CellFinding $cell): bool => $plan->columnPairs[$cell->pairPosition]->source === 'holder_no',
            ));
        }

        return $differing;
    }

    /** With the numbers that Holders matched, once all that were renumbered are bridged. */
    private function prepared(Plan $plan, Reader $source): PreparedReader
    {
        $paths = Holders::write($this->workspace->path);
        $bridged = Plan::fromJson(CanonicalJson::of(['bridges' => array_map(
            static fn(string $old, string $new): array => ['source' => [$old], 'target' => [$new]],
            array_keys(Holders::truth()),
            array_values(Holders::truth()),
        )] + Holders::plan()));
        $matched = new MatchedRows($bridged, new Sides(
            DelimitedReader::detecting($paths['source'][0], 'holders'),
            DelimitedReader::detecting($paths['target'][0], 'holders'),
        ), Workspace::make($this->workspace->path)->path);
        $table = "{$this->workspace->path}/matched.csv";
        file_put_contents(
            $table,
            implode('', array_map(CsvLine::of(...), [$matched->columns(), ...iterator_to_array($matched->rows(), false)])),
        );
        $prepared = PreparedSide::in("{$this->workspace->path}/prepared");
        $prepared->make(
            new PartStack([['reader' => $source, 'label' => 'moorings']]),
            $plan->source->preparation,
            'source',
            static fn(int $bytes, int $records) => null,
            new ReferenceShelf(
                ['Holders as matched' => static fn(): PartStack => new PartStack([
                    ['reader' => DelimitedReader::detecting($table, 'matched'), 'label' => 'matched'],
                ])],
                [],
                $this->workspace->path,
            ),
        );

        return new PreparedReader($prepared, 'moorings');
    }
}
