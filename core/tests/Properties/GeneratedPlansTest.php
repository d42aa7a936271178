<?php

declare(strict_types=1);

namespace NineTally\Tests\Properties;

use Brick\Math\BigDecimal;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Preparation\PreparedSide;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\SequentialExecutor;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Tally\TaskExecutor;
use NineTally\Tests\GivenDeliveries;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\ExpectationFailedException;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** What holds for every plan and all data. One that breaks a property is made as small as it can be before it is shown. */
final class GeneratedPlansTest extends TestCase
{
    use TemporaryFiles;

    private const ROUNDS = 25;

    public function test_sides_that_are_swapped_mirror_every_count(): void
    {
        $this->holds(function (GeneratedTally $tally): void {
            $one = $this->figures($this->summary($tally));
            $other = $this->figures($this->summary($tally->mirrored()));

            self::assertEquals($one, [
                'source' => $this->renamed($other['target']),
                'target' => $this->renamed($other['source']),
                'cells' => ['blanked' => $other['cells']['filled'], 'filled' => $other['cells']['blanked']] + $other['cells'],
                'values' => ['lost' => $other['values']['added'], 'added' => $other['values']['lost']] + $other['values'],
            ]);
        });
    }

    public function test_parts_and_the_order_of_rows_change_no_figure(): void
    {
        $this->holds(function (GeneratedTally $tally, Randomizer $random): void {
            $cut = intdiv(count($tally->source), 2);
            $parts = [$this->delimited(array_slice($tally->source, 0, $cut)), $this->delimited(array_slice($tally->source, $cut))];
            $shuffled = new GeneratedTally($tally->plan, $tally->source, $random->shuffleArray($tally->target));
            $summary = $this->summary($tally);
            $whole = $this->figures($summary);

            self::assertEquals($whole, $this->figures($this->summary($tally, $parts)), 'in two parts');
            // Where the columns of a policy do not decide, the first row is kept, and that is said.
            if (array_sum($summary->key->undecided) === 0) {
                self::assertEquals($whole, $this->figures($this->summary($shuffled)), 'in another order');
            }
        });
    }

    public function test_workers_partitions_and_ranges_change_nothing_at_all(): void
    {
        // Tasks done in another order than they were made is what several workers come to.
        $backwards = new class () implements TaskExecutor {
            public function perform(TallyWork $work, array $tasks, callable $onProgress, callable $onDone): void
            {
                (new SequentialExecutor)->perform($work, array_reverse($tasks), $onProgress, $onDone);
            }
        };
        $this->holds(function (GeneratedTally $tally) use ($backwards): void {
            $one = $this->findings($tally, new TallySettings(partitions: 1, triesSideBySide: true), new SequentialExecutor);

            self::assertSame(
                $one,
                $this->findings($tally, new TallySettings(partitions: 8, rangeBytes: 40, triesSideBySide: false), $backwards),
            );
        });
    }

    public function test_a_plan_written_and_read_again_gives_the_same_bytes(): void
    {
        $this->holds(function (GeneratedTally $tally): void {
            $written = CanonicalJson::of($tally->plan()->toArray());

            self::assertSame($written, CanonicalJson::of(Plan::fromJson($written)->toArray()));
            self::assertEquals($tally->plan(), Plan::fromJson($written));
        });
    }

    public function test_the_shares_of_every_ledger_add_up(): void
    {
        $this->holds(function (GeneratedTally $tally): void {
            $summary = $this->summary($tally);
            foreach ([$summary->source, $summary->target] as $side) {
                $rows = count($side->side === Side::Source ? $tally->source : $tally->target);
                self::assertSame($rows, $side->refused + $side->delivered);
                self::assertSame($side->prepared, $side->delivered - $side->leftOut + $side->made - $side->condensed);
                self::assertSame($side->prepared, $side->unkeyed + $side->repeated + $side->agreed + $side->changed + $side->unmatched);
            }
            foreach ($summary->columns as $column) {
                self::assertSame($summary->source->agreed + $summary->source->changed, $column['compared']);
                self::assertSame(
                    $column['compared'],
                    $column['identical'] + $column['forgiven'] + $column['changed'] + $column['blanked'] + $column['filled'],
                );
            }
            $values = $summary->values()->toArray();
            self::assertSame($values['right'] + $values['differing'] + $values['lost'] + $values['added'], $values['values']);
        });
    }

    public function test_shares_make_up_each_difference_and_groups_each_total(): void
    {
        $names = [];
        $this->holds(function (GeneratedTally $tally) use (&$names): void {
            $mirrored = $this->summary($tally->mirrored())->reports->totals;
            foreach ($this->summary($tally)->reports->totals as $number => $total) {
                self::assertSame($total->all['source'], $mirrored[$number]->all['target']);
                if (! $total->total->measure->hasShares()) {
                    continue;
                }
                /** @param list<string|null> $figures */
                $sum = static fn(array $figures): string => rtrim(
                    rtrim((string) BigDecimal::sum(0, ...array_filter($figures, is_string(...)))->toScale(30), '0'),
                    '.',
                );
                foreach ([$total->all, ...$total->groups] as $figures) {
                    self::assertSame($sum([(string) $figures['difference']]), $sum(array_column($figures['shares'], 'net')));
                    array_push($names, ...array_column($figures['shares'], 'name'));
                }
                foreach ($total->groups === [] ? [] : ['source', 'target', 'difference'] as $figure) {
                    self::assertSame($sum([(string) $total->all[$figure]]), $sum(array_column($total->groups, $figure)));
                }
            }
        });

        $kinds = array_unique(array_map(static fn(string $name): string => preg_replace('/\d+/', 'n', $name) ?? '', $names));
        $all = explode('|', 'missing|extra|repeated source|unkeyed target|pattern n|elsewhere|uncompared|left-out target|altered source');
        self::assertSame([], array_values(array_diff($all, $kinds)));
    }

    public function test_one_that_breaks_a_property_is_made_small(): void
    {
        $tally = GeneratedTally::draw(new Randomizer(new Mt19937(7)));
        $hasAnn = static fn(GeneratedTally $one): bool => in_array('Ann', array_column($one->source, 2), true);
        $tally = new GeneratedTally($tally->plan, [...$tally->source, ['KB', '1', 'Ann', '', '', '']], $tally->target);
        $small = $tally->shrunk($hasAnn);

        self::assertSame([1, 'Ann', [], []], [count($small->source), $small->source[0][2], $small->target, $small->plan['columnPairs']]);
    }

    /** @param callable(GeneratedTally, Randomizer): void $property */
    private function holds(callable $property): void
    {
        $random = new Randomizer(new Mt19937(7_654_321));
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $seed = $random->getInt(0, PHP_INT_MAX);
            $broken = static function (GeneratedTally $tally) use ($property, $seed): ?ExpectationFailedException {
                try {
                    $property($tally, new Randomizer(new Mt19937($seed)));
                } catch (ExpectationFailedException $failure) {
                    return $failure;
                } catch (UnbalancedTally $unbalanced) {
                    return new ExpectationFailedException($unbalanced->getMessage());
                } catch (UnusablePlan) {
                    // Made smaller it is no plan any more.
                    return null;
                }

                return null;
            };
            $tally = GeneratedTally::draw($random);
            if ($broken($tally) !== null) {
                $small = $tally->shrunk(static fn(GeneratedTally $one): bool => $broken($one) !== null);
                $failure = $broken($small);
                self::fail(
                    "Round {$round} breaks it; the smallest that ".
                        "does:\n{$small}\n{$failure?->getMessage()}\n{$failure?->getComparisonFailure()?->getDiff()}",
                );
            }
        }
    }

    /** @param non-empty-list<DelimitedReader>|null $parts of the source, instead of its rows in one */
    private function summary(GeneratedTally $tally, ?array $parts = null): Summary
    {
        $findings = $this->started($tally, new TallySettings, new SequentialExecutor, $parts);
        foreach ($findings as $finding) {
            unset($finding);
        }

        return $findings->getReturn();
    }

    /** @return list<string> */
    private function findings(GeneratedTally $tally, TallySettings $settings, TaskExecutor $crew): array
    {
        $findings = $this->started($tally, $settings, $crew);
        $found = [];
        foreach ($findings as $row) {
            $found[] = implode(' ', [
                $row->class->value,
                $row->side->value ?? 'both',
                $row->key?->asCsv(),
                $row->source?->line,
                $row->target?->line,
                $row->reason?->value,
                ...array_map(
                    static fn(CellFinding $cell): string => "[{$cell->pairPosition} {$cell->class->value} {$cell->cause}]",
                    $row->cells,
                ),
            ]);
        }

        return [...$found, (string) json_encode($findings->getReturn()->toArray())];
    }

    /**
     * @param  non-empty-list<DelimitedReader>|null  $parts
     * @return \Generator<int, RowFinding, mixed, Summary>
     */
    private function started(GeneratedTally $tally, TallySettings $settings, TaskExecutor $crew, ?array $parts = null): \Generator
    {
        $plan = $tally->plan();

        $deliveries = new Sides($parts ?? [$this->delimited($tally->source)], [$this->delimited($tally->target)]);
        $stacks = $deliveries->map(static fn(array $of): PartStack => new PartStack(
            array_map(static fn(DelimitedReader $part): array => ['reader' => $part, 'label' => ''], $of),
        ));

        return (new TallyRun(
            $plan,
            Sides::each(fn(Side $side): Reader => $this->side($plan, $side, $deliveries->of($side), $stacks->of($side))),
            $this->folder('work-'.bin2hex(random_bytes(4))),
            settings: $settings,
            executor: $crew,
            delivered: new GivenDeliveries($stacks),
        ))->findings();
    }

    /** @param non-empty-list<DelimitedReader> $parts */
    private function side(Plan $plan, Side $side, array $parts, PartStack $stack): Reader
    {
        $preparation = $plan->side($side)->preparation;
        if (count($parts) === 1 && $preparation->isEmpty()) {
            return $parts[0];
        }
        $prepared = PreparedSide::in($this->folder('prepared-'.bin2hex(random_bytes(4))));
        $prepared->make($stack, $preparation, $side->value, static fn() => null);

        return new PreparedReader($prepared, "{$side->value}.csv");
    }

    /** @param list<list<string>> $rows */
    private function delimited(array $rows): DelimitedReader
    {
        $name = 'rows-'.bin2hex(random_bytes(4)).'.csv';

        return new DelimitedReader($this->file(GeneratedTally::csv($rows), $name), $name, new DelimitedFormat(',', LineEnds::Lf));
    }

    /** @return array{source: array<string, int>, target: array<string, int>, cells: array<string, int>, values: array<string, int>} */
    private function figures(Summary $summary): array
    {
        return [
            'source' => $summary->source->toArray(),
            'target' => $summary->target->toArray(),
            'cells' => $summary->cells(),
            'values' => array_filter($summary->values()->toArray(), is_int(...)),
        ];
    }

    /**
     * @param  array<string, int>  $side
     * @return array<string, int> what was missing is extra on the other side
     */
    private function renamed(array $side): array
    {
        $names = ['missing' => 'extra', 'extra' => 'missing'];

        return array_combine(array_map(static fn(string $name): string => $names[$name] ?? $name, array_keys($side)), $side);
    }
}
