<?php

declare(strict_types=1);

namespace Tests\Feature\Demo;

use Brick\Math\BigDecimal;
use Database\Demo\Agents;
use Database\Demo\DemoDataset;
use Database\Demo\DemoWriter;
use Database\Demo\Generator;
use Database\Demo\Wherrymoor;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Delimited\FormatDetection;
use NineTally\Core\Intake\HashTotals;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\Trailer;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Records\RecordSource;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Totals\Measure;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The engine against the truths of the demo, which come from how it was made. */
final class DemoTruthTest extends TestCase
{
    #[DataProvider('datasets')]
    public function test_the_engine_finds_exactly_what_was_planted(int $position): void
    {
        $demo = Wherrymoor::datasets()[$position];
        $workspace = Workspace::make();
        try {
            $paths = Wherrymoor::generator($demo)->write($workspace->path);
            /**
             * @var array{rows: array{source: array<string, int>, target: array<string, int>}, cells: list<array{key: list<string>,
             *     column: string, class: string, cause: string}>, sums: array<string, array<string, array<string, int>>>,
             *     records: array<string, array{values: int, rows: int}>} $truth
             */
            $truth = json_decode((string) file_get_contents($paths['truth']), true, 8, JSON_THROW_ON_ERROR);
            [$rows, $cells, $forgiven, $sums, $records] = $this->found($demo, $paths, $workspace->path);
        } finally {
            $workspace->remove();
        }

        $passed = $differing = [];
        foreach ($truth['cells'] as $cell) {
            if ($demo->rules->lets($cell['column'], $cell['cause'])) {
                $passed[] = $cell;
            } else {
                $differing[] = $cell;
            }
        }
        foreach ($truth['rows'] as $side => $counts) {
            // Every planted cell takes a row of its own: one whose difference is forgiven agrees.
            $counts['agreed'] += count($passed);
            $counts['changed'] -= count($passed);
            self::assertEquals($counts, array_intersect_key($rows[$side], $counts), $side);
        }
        self::assertSame($this->expected($differing), $cells);
        $planted = array_count_values(array_column($passed, 'cause'));
        if ($demo->rules->codes !== []) {
            // Every row that met was translated, but for those that were not.
            $planted['crosswalk'] =
                $rows['source']['agreed'] +
                $rows['source']['changed'] -
                count(array_filter($truth['cells'], static fn(array $cell): bool => $cell['cause'] === 'untranslated'));
        }
        ksort($planted);
        self::assertSame($planted, $forgiven);
        self::assertEquals($truth['sums'], $sums);
        self::assertEquals($truth['records'], $records);
    }

    /** @return iterable<string, array{int}> */
    public static function datasets(): iterable
    {
        foreach (Wherrymoor::datasets() as $position => $dataset) {
            yield $dataset->name => [$position];
        }
    }

    public function test_the_demo_holds_every_cause_at_least_once(): void
    {
        $planted = array_merge(
            ...array_map(static fn(DemoDataset $demo): array => array_column($demo->faults->cells, 'cause'), Wherrymoor::datasets()),
        );

        self::assertSame([], array_diff(array_column(CauseId::cases(), 'value'), $planted, ['crosswalk']));
    }

    public function test_the_parts_of_vessels_hold_the_rows_of_the_whole_and_their_trailers_hold(): void
    {
        $workspace = Workspace::make();
        $demo = Wherrymoor::datasets()[2];
        $whole = Wherrymoor::generator($demo)->write($workspace->path)['source'];
        $files = $demo->files;
        $writer = new DemoWriter($files->sourceDelimiter, $files->sourceLineEnd);
        $rows = $sums = [];
        $format = (new FormatDetection)->find($whole, 'whole')->format;
        foreach ($writer->divide($whole, array_keys($files->parts), (string) $files->totalled) as $part) {
            $trailer = Trailer::of($part, PartFormat::delimited($format), 10);
            $totals = new HashTotals(['length_m']);
            $reader = new DelimitedReader($part, 'part', $format->with(skipBelow: 1));
            $before = count($rows);
            foreach ($reader->records() as $record) {
                self::assertInstanceOf(Row::class, $record);
                $rows[] = $record->cells;
                $totals->add($record->cells, ['length_m' => 3]);
            }
            self::assertTrue($trailer?->isLikely);
            self::assertSame(['TRL', (string) (count($rows) - $before), (string) $totals->sum('length_m')], $trailer->cells);
            $sums[] = $trailer->cells[2];
        }
        $ofWhole = array_map(
            static fn(Row|RefusedRecord $record): array => $record instanceof Row ? $record->cells : [],
            iterator_to_array(DelimitedReader::detecting($whole, 'whole')->records(), false),
        );
        $workspace->remove();

        self::assertCount(2, array_unique($sums));
        self::assertSame($ofWhole, $rows);
    }

    public function test_the_same_seed_gives_the_same_bytes(): void
    {
        $workspace = Workspace::make();
        $vessels = Wherrymoor::datasets()[2];
        $digest = static fn(array $paths): array => array_map(
            static fn(mixed $path): string|false => is_string($path) ? hash_file('sha256', $path) : false,
            $paths,
        );
        $one = $digest((new Generator($vessels, 7))->write($workspace->path));
        $same = $digest((new Generator($vessels, 7))->write($workspace->path));
        $other = $digest((new Generator($vessels, 8))->write($workspace->path));
        $workspace->remove();

        self::assertSame($one, $same);
        self::assertNotSame($one, $other);
    }

    /**
     * @param  list<array{key: list<string>, column: string, class: string, cause: string}>  $planted
     * @return array<string, string> key and column => class and cause
     */
    private function expected(array $planted): array
    {
        $expected = [];
        foreach ($planted as $cell) {
            $expected[KeyTuple::of($cell['key'])->asCsv().' '.$cell['column']] = "{$cell['class']} {$cell['cause']}";
        }
        ksort($expected);

        return $expected;
    }

    /**
     * @param  array{source: string, target: string, truth: string}  $paths
     * @return array{array{source: array<string, int>, target: array<string, int>}, array<string, string>, array<string, int>, array<string,
     *     array<string, array{source: int, target: int}>>, array<string, array{values: int, rows: int}>} rows by side and class, cells,
     *     forgiven cells by cause, sums in pence, and what has no record
     */
    private function found(DemoDataset $demo, array $paths, string $folder): array
    {
        $plan = Plan::fromJson(CanonicalJson::of($demo->plan()));
        $run = new TallyRun(
            $plan,
            new Sides(
                DelimitedReader::detecting($paths['source'], 'old'),
                DelimitedReader::detecting($paths['target'], 'new'),
            ),
            $folder,
            recordSource: $this->agents($folder),
        );
        $findings = $run->findings();
        $cells = [];
        foreach ($findings as $row) {
            foreach ($row->cells as $cell) {
                $cells[$row->key?->asCsv().' '.$plan->columnPairs[$cell->pairPosition]->source] = "{$cell->class->value} {$cell->cause}";
            }
        }
        ksort($cells);
        $summary = $findings->getReturn();

        $forgiven = [];
        foreach ($summary->forgivenPatterns() as $pattern) {
            $forgiven[$pattern->cause] = ($forgiven[$pattern->cause] ?? 0) + $pattern->cells;
        }
        ksort($forgiven);

        $sums = [];
        foreach ($summary->reports->totals as $total) {
            foreach ($total->total->measure === Measure::Sum ? $total->groups : [] as $group) {
                $sums[(string) $total->total->source][$group['labels'][0]] = self::pence($group);
            }
        }

        $records = $summary->reports->records === [] ? [] : $summary->reports->records[0]->kinds;

        return [['source' => $summary->source->toArray(), 'target' => $summary->target->toArray()], $cells, $forgiven, $sums, $records];
    }

    private function agents(string $folder): RecordSource
    {
        return new class (Agents::write($folder)) implements RecordSource {
            /** @param array{source: list<string>, target: list<string>} $paths */
            public function __construct(private array $paths) {}

            public function stack(string $dataset, Side $side): PartStack
            {
                return new PartStack([['reader' => DelimitedReader::detecting($this->paths[$side->value][0], 'agents'), 'label' => '']]);
            }
        };
    }

    /**
     * @param  array{source: string|null, target: string|null, ...}  $group
     * @return array{source: int, target: int}
     */
    private static function pence(array $group): array
    {
        $pence = static fn(?string $sum): int => BigDecimal::of($sum ?? '0')->multipliedBy(100)->toInt();

        return ['source' => $pence($group['source']), 'target' => $pence($group['target'])];
    }
}
