<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Preparation\PreparationLedger;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Each equation of the steps' ledger is broken, and it alone. */
final class PreparationLedgerTest extends TestCase
{
    private const LEDGER = [
        'columns' => ['basin'],
        'deliveredColumns' => ['basin'],
        'read' => 12,
        'refused' => 2,
        'delivered' => 10,
        'prepared' => 14,
    ];

    private const STEPS = [
        ['in' => 10, 'made' => 0, 'condensed' => 0, 'leftOut' => 3, 'out' => 7],
        ['in' => 7, 'made' => 9, 'condensed' => 2, 'leftOut' => 0, 'out' => 14],
    ];

    public function test_sums_that_add_up_pass(): void
    {
        $this->expectNotToPerformAssertions();
        $this->ledger(self::LEDGER, self::STEPS)->mustHold();
    }

    /**
     * @param  array<string, int>  $wrong  by how much which figures of the side are off
     * @param  array<int, array<string, int>>  $wrongSteps  the same, by step
     */
    #[DataProvider('brokenSums')]
    public function test_no_broken_sum_passes(string $equation, array $wrong, array $wrongSteps): void
    {
        [$ledger, $steps] = [self::LEDGER, self::STEPS];
        foreach ($wrong as $figure => $difference) {
            $ledger[$figure] = (int) $ledger[$figure] + $difference;
        }
        foreach ($wrongSteps as $step => $figures) {
            foreach ($figures as $figure => $difference) {
                $steps[$step][$figure] += $difference;
            }
        }
        try {
            $this->ledger($ledger, array_values($steps))->mustHold();
            self::fail('Steps whose sums are wrong were reported.');
        } catch (UnbalancedTally $problem) {
            self::assertSame($equation, $problem->equation);
        }
    }

    /** @return iterable<string, array{string, array<string, int>, array<int, array<string, int>>}> */
    public static function brokenSums(): iterable
    {
        yield 'a record that was read is lost' => ['records read = refused + delivered', ['read' => 1], []];
        yield 'a row is lost before the first step' => ['rows into step 1', ['delivered' => 1, 'read' => 1], []];
        yield 'a row is lost between two steps' => ['rows into step 2', [], [0 => ['out' => 1, 'leftOut' => -1]]];
        yield 'a row is lost in a step' => ['step 1: rows in + made = rows out + left out + merged', [], [0 => ['leftOut' => -1]]];
        yield 'a row is made in a step and not counted' => [
            'step 2: rows in + made = rows out + left out + merged',
            [],
            [1 => ['made' => -1]],
        ];
        yield 'a row is condensed twice' => ['step 2: rows in + made = rows out + left out + merged', [], [1 => ['condensed' => 1]]];
        yield 'a row is lost behind the last step' => ['rows out of the last step = prepared', ['prepared' => -1], []];
    }

    /**
     * @param  array<string, mixed>  $ledger
     * @param  list<array<string, int>>  $steps
     */
    private function ledger(array $ledger, array $steps): PreparationLedger
    {
        return PreparationLedger::of([
            ...$ledger,
            'steps' => array_map(
                static fn(array $figures, int $nth): array => [
                    'number' => $nth + 1,
                    'id' => 'a',
                    'kind' => 'keep-rows',
                    'sentence' => 'Keep rows',
                    'columns' => ['basin'],
                    'figures' => $figures,
                ],
                $steps,
                array_keys($steps),
            ),
        ]);
    }
}
