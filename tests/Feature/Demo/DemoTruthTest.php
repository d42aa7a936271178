<?php

declare(strict_types=1);

namespace Tests\Feature\Demo;

use Database\Demo\DemoDataset;
use Database\Demo\Generator;
use Database\Demo\Wherrymoor;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Intake\DelimitedReader;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The engine against the truths of the demo, which come from how it was made. */
final class DemoTruthTest extends TestCase
{
    /** Causes that need a rule in the plan before they can be told. */
    private const NEED_A_RULE = ['crosswalk', 'tolerance'];

    #[DataProvider('datasets')]
    public function test_the_engine_finds_exactly_what_was_planted(int $position): void
    {
        $demo = Wherrymoor::datasets()[$position];
        $workspace = Workspace::make();
        try {
            $paths = (new Generator($demo, Wherrymoor::SEED + $position))->write($workspace->path);
            /** @var array{rows: array{source: array<string, int>, target: array<string, int>}, cells: list<array{key: list<string>, column: string, class: string, cause: string}>} $truth */
            $truth = json_decode((string) file_get_contents($paths['truth']), true, 8, JSON_THROW_ON_ERROR);
            [$rows, $cells] = $this->found($demo, $paths, $workspace->path);
        } finally {
            $workspace->remove();
        }

        foreach ($truth['rows'] as $side => $counts) {
            self::assertEquals($counts, array_intersect_key($rows[$side], $counts), $side);
        }
        self::assertSame($this->expected($truth['cells']), $cells);
    }

    /** @return iterable<string, array{int}> */
    public static function datasets(): iterable
    {
        foreach (Wherrymoor::datasets() as $position => $dataset) {
            yield $dataset->name => [$position];
        }
    }

    public function test_the_same_seed_gives_the_same_bytes(): void
    {
        $workspace = Workspace::make();
        $vessels = Wherrymoor::datasets()[2];
        $digest = static fn(array $paths): array => array_map(static fn(mixed $path): string|false => is_string($path) ? hash_file('sha256', $path) : false, $paths);
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
            $known = array_filter(explode('+', $cell['cause']), static fn(string $id): bool => CauseId::tryFrom($id) === null || in_array($id, self::NEED_A_RULE, true)) === [];
            $expected[KeyTuple::of($cell['key'])->asCsv().' '.$cell['column']] = $cell['class'].' '.($known ? $cell['cause'] : 'none');
        }
        ksort($expected);

        return $expected;
    }

    /**
     * @param  array{source: string, target: string, truth: string}  $paths
     * @return array{array{source: array<string, int>, target: array<string, int>}, array<string, string>}
     */
    private function found(DemoDataset $demo, array $paths, string $folder): array
    {
        $pairs = array_filter($demo->columns, static fn(string $target, string $source): bool => $target !== '' && ! in_array($source, $demo->key, true), ARRAY_FILTER_USE_BOTH);
        $key = array_map(static fn(string $name): KeyColumn => new KeyColumn($name, $demo->columns[$name]), $demo->key);
        if ($key === []) {
            self::fail('A dataset of the demo has a key.');
        }
        $plan = new Plan($key, array_map(ColumnPair::between(...), array_keys($pairs), array_values($pairs)));
        $run = new TallyRun($plan, DelimitedReader::detecting($paths['source'], 'old'), DelimitedReader::detecting($paths['target'], 'new'), ['source' => (int) filesize($paths['source']), 'target' => (int) filesize($paths['target'])], $folder);
        $findings = $run->findings();
        $cells = [];
        foreach ($findings as $row) {
            foreach ($row->cells as $cell) {
                $cells[$row->key?->asCsv().' '.$plan->columnPairs[$cell->pairPosition]->source] = "{$cell->class->value} {$cell->cause}";
            }
        }
        ksort($cells);
        $summary = $findings->getReturn();

        return [['source' => $summary->source->toArray(), 'target' => $summary->target->toArray()], $cells];
    }
}
